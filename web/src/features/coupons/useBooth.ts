import { useEffect, useState } from 'react'

/** Booth theme: chosen once for this browser; until then dark where the system is dark or the screen small. */
export function useBooth(): [boolean, (on: boolean) => void] {
  const [on, setOn] = useState(() => {
    const chosen = localStorage.getItem('booth')
    if (chosen) return chosen === 'on'
    return window.matchMedia('(prefers-color-scheme: dark)').matches || window.innerWidth < 900
  })
  // The whole window goes dark with it, rail and strip too.
  useEffect(() => {
    document.documentElement.classList.toggle('booth', on)
    return () => document.documentElement.classList.remove('booth')
  }, [on])
  return [
    on,
    (next) => {
      localStorage.setItem('booth', next ? 'on' : 'off')
      setOn(next)
    },
  ]
}
