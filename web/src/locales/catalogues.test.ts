import fs from 'node:fs'

import PO from 'pofile'
import { expect, it } from 'vitest'

const read = (language: string) => PO.parse(fs.readFileSync(`src/locales/${language}.po`, 'utf8')).items
const placeholders = (text: string) =>
  [...text.matchAll(/\{(\w+)[},]|<\/?(\d+)\/?>/g)].map((one) => one[0].replace(',', '}')).sort()
const unique = (list: string[]) => [...new Set(list)]

it('translates every text of the screen', () => {
  const untranslated = read('de').filter((one) => !one.msgstr[0])
  expect(untranslated.map((one) => one.msgid)).toEqual([])
  expect(read('de').map((one) => one.msgid)).toEqual(read('en').map((one) => one.msgid))
})

it('translates into Spanish what a welder works with: the run log, the checklist, and the way there', () => {
  const atTheBooth =
    /src\/(features\/coupons|app\/|domain\/(passQueue|words)|features\/(evidence\/CouponTabs|recordings\/RecordingsPanel|production\/(JointPage|WeldForm|NamesField|PassValues|states))|ui\/|session\/|api\/)/
  const untranslated = read('es').filter((one) => !one.msgstr[0] && one.references.some((at) => atTheBooth.test(at)))
  expect(untranslated.map((one) => one.msgid)).toEqual([])
})

it.each(['de', 'es'])('keeps the values and the elements of every text: %s', (language) => {
  for (const one of read(language).filter((one) => one.msgstr[0]))
    expect(unique(placeholders(one.msgstr[0] ?? '')), one.msgid).toEqual(unique(placeholders(one.msgid)))
})

it('uses the words of the German trade', () => {
  // Left: what a dictionary gives; the trade says Schweißzusatz, Raupe, Steghöhe, Badsicherung, Prüfstück.
  const foreign = /Füller|Landung|Coupon|Schweißperle|Rückhalt|Wurzelöffnung|Gutschein/
  expect(read('de').filter((one) => foreign.test(one.msgstr[0] ?? ''))).toEqual([])
})
