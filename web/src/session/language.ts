import { i18n, type Messages } from '@lingui/core'

/** Languages of the screen, each under its own name; Spanish for the welder: the run log, the checklist and cautions. */
// eslint-disable-next-line lingui/no-unlocalized-strings -- each under its own name
export const LANGUAGES = { en: 'English', de: 'Deutsch', es: 'Español' } as const
export type Language = keyof typeof LANGUAGES

const COOKIE = 'language'
const CATALOGUES: Record<Language, () => Promise<{ messages: Messages }>> = {
  en: () => import('../locales/en.po'),
  de: () => import('../locales/de.po'),
  es: () => import('../locales/es.po'),
}

const known = (text: string | undefined): Language | undefined =>
  (Object.keys(LANGUAGES) as Language[]).find((one) => one === text?.slice(0, 2).toLowerCase())

/** What was chosen here, else the first of the browser's languages that there is, else English. */
export function language(): Language {
  const chosen = document.cookie.split('; ').find((one) => one.startsWith(`${COOKIE}=`))
  return known(chosen?.slice(COOKIE.length + 1)) ?? navigator.languages.map(known).find(Boolean) ?? 'en'
}

/** Choose a language. The page is opened anew, as texts are read once; what is typed lies in the browser's storage. */
export function chooseLanguage(next: Language): void {
  document.cookie = `${COOKIE}=${next}; path=/; max-age=31536000; samesite=lax`
  location.reload()
}

/** Load the catalogue: before anything with a text in it is imported. */
export async function speak(next: Language = language()): Promise<void> {
  const { messages } = await CATALOGUES[next]()
  i18n.loadAndActivate({ locale: next, messages })
  document.documentElement.lang = next
}

/** Where dates and numbers are written for: the browser's own kind of the language, such as en-GB, where it names one. */
export function locale(): string {
  const chosen = language()
  return navigator.languages.find((one) => known(one) === chosen) ?? chosen
}

/** A number that was written with a point, with the decimal sign of the language. What is typed may have either. */
export function digits(text: string): string {
  return decimalSign() === ',' ? text.replace(/[.,]/g, (sign) => (sign === '.' ? ',' : '.')) : text
}

let sign: string | undefined
function decimalSign(): string {
  sign ??= new Intl.NumberFormat(language()).formatToParts(0.5).find((one) => one.type === 'decimal')?.value ?? '.'
  return sign
}

/** A number with so many decimals. */
export function fixed(value: number, decimals: number): string {
  return digits(value.toFixed(decimals))
}

/** A number with so many significant digits. */
export function precise(value: number, figures: number): string {
  return digits(value.toPrecision(figures))
}
