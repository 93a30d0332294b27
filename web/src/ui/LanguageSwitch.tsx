import { t } from '@lingui/core/macro'

import { chooseLanguage, LANGUAGES, type Language, language } from '../session/language'

/** Languages, each under its own name. */
export function LanguageSwitch() {
  const now = language()
  return (
    <div role="radiogroup" aria-label={t`Language`} className="flex gap-3 text-[13px]">
      {(Object.keys(LANGUAGES) as Language[]).map((one) => (
        <button
          key={one}
          type="button"
          role="radio"
          lang={one}
          aria-checked={one === now}
          className={`min-h-6 ${one === now ? 'font-semibold' : 'link'}`}
          onClick={() => one !== now && chooseLanguage(one)}
        >
          {LANGUAGES[one]}
        </button>
      ))}
    </div>
  )
}
