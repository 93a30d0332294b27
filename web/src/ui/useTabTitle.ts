import { t } from '@lingui/core/macro'
import { useEffect } from 'react'

/** What the browser's tab says while a page is shown, so that many tabs can be told apart. */
export function useTabTitle(...words: (string | undefined)[]) {
  const text = [...words, t`Grounded Bead`].filter(Boolean).join(' · ')
  useEffect(() => {
    document.title = text
  }, [text])
}
