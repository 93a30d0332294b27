import { t } from '@lingui/core/macro'

import { BACKINGS, FORMS, inWords, JOINT_KINDS } from '../../domain/words'

const WORDS: Record<string, string> = {
  same: t`yes, the same`,
  unknown: t`not stated`,
  leg: t`leg`,
  throat: t`throat`,
  members: t`thickness of both members`,
  inch: t`fraction of an inch`,
  mm: 'mm',
  in: 'in',
}

const CHOICE_WORDS = new Map<string, string>([
  ...JOINT_KINDS,
  ...FORMS,
  ...BACKINGS,
  ['cjp-groove', t`CJP groove weld, full penetration`],
  ['pjp-groove', t`PJP groove weld, partial penetration`],
  ['fillet', t`fillet weld`],
  ['yes', t`yes`],
  ['no', t`no`],
])

const ASKED_ALONE: Record<string, string> = {
  unit: t`Lengths without a unit:`,
  size: t`Size of a fillet weld:`,
  second: t`The other member of a joint:`,
  fraction: t`Two figures with a stroke between them:`,
}

/** An answer in words. */
export const answerWords = (answer: string): string => WORDS[answer] ?? CHOICE_WORDS.get(answer) ?? inWords(answer)

/** What was asked, from the key of its answer: `weld:bw` is the weld type “bw”. */
export function askedWords(key: string, titles: Record<string, string>): string {
  const alone = ASKED_ALONE[key]
  if (alone) return alone
  const [column = '', ...rest] = key.split(':')
  const said = rest.join(':')
  const words = titles[column] ?? column
  if (column === 'joint') return said ? t`${words} of “${answerWords(said)}”:` : t`${words}, not stated:`
  return said ? t`${words} “${said}”:` : t`${words}, not stated:`
}
