import { t } from '@lingui/core/macro'

import { LANGUAGES, language } from '../session/language'

/** Second languages of a sheet beside the reader's own: the code and how the menu says it. */
export const printedInTwo = (): [string, string][] =>
  Object.entries(LANGUAGES)
    .filter(([one]) => one !== language())
    .map(([one, name]) => [one, t`Print A4, ${LANGUAGES[language()]} and ${name}`])
