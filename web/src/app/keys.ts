import { useEffect, useRef } from 'react'

export const KEYS: readonly [string, string][] = [
  ['Ctrl K', 'find or do'],
  ['g d, g p, g c, g b, g s, g k', 'go to desk, procedures, coupons, bench, shelf, code book'],
  ['arrows', 'ladder: move between passes and columns'],
  ['Enter, Esc', 'ladder: edit, leave; a field: take, take back'],
  ['Shift Enter', 'ladder: next pass, same column'],
  ['a, Shift D', 'ladder, on a pass: add one above, duplicate'],
  ['t', 'coupon: start and stop the stopwatch'],
  ['Ctrl Enter', 'coupon: save the pass'],
  ['?', 'this list'],
]

const PLACES: Record<string, string> = { d: '/', p: '/procedures', c: '/coupons', b: '/bench', s: '/shelf', k: '/book' }

/** Whether a key press belongs to a field and not to the page. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) || target.closest('[role="dialog"], [role="listbox"]') !== null)
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
