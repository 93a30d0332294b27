import { t } from '@lingui/core/macro'
import { useEffect, useRef } from 'react'

export const KEYS: readonly [string, string][] = [
  [t`Ctrl K`, t`search or run a command`],
  [
    'g d, g j, g p, g c, g w, g r, g s, g x, g a, g l, g b',
    t`go to dashboard, joints, procedures, coupons, production, crew, try a setting, find a fault, calculators, library, code book`,
  ],
  ['arrows', t`ladder: move between passes and columns`],
  [t`Enter, Esc`, t`ladder: edit, leave; a field: take, take back`],
  [t`Shift Enter`, t`ladder: next pass, same column`],
  [t`a, Shift D`, t`ladder, on a pass: add one above, duplicate`],
  ['t', t`coupon: start and stop the stopwatch`],
  [t`Ctrl Enter`, t`coupon: save the pass`],
  ['f', t`coupon: find the cause of what was flagged last`],
  ['w', t`pass tried: weld it on scrap`],
  ['?', t`this list`],
]

const PLACES: Record<string, string> = {
  d: '/',
  j: '/joints',
  p: '/procedures',
  c: '/coupons',
  w: '/production',
  r: '/crew',
  s: '/try',
  x: '/faults',
  a: '/calculators',
  l: '/library',
  b: '/book',
}

/** Whether a key press belongs to a field and not to the page. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) ||
      target.closest('[role="dialog"], [role="listbox"], [role="grid"]') !== null)
  )
}

/** Keys that work on every page. */
export function useGlobalKeys(actions: { go: (to: string) => void; search: () => void; keys: () => void }) {
  const current = useRef(actions)
  useEffect(() => {
    current.current = actions
  })
  useEffect(() => {
    let waiting = 0
    const onKey = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault()
        current.current.search()
        return
      }
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event)) return
      if (event.key === '?') current.current.keys()
      else if (event.key === 'g') waiting = Date.now()
      else if (Date.now() - waiting < 1500) {
        const to = PLACES[event.key]
        waiting = 0
        if (to) current.current.go(to)
      }
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}
