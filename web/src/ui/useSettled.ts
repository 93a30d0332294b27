import { useEffect, useState } from 'react'

/** A value once it has stood still for a while: what is typed is asked about after a pause. */
export function useSettled<T>(value: T, ms = 120): T {
  const [settled, setSettled] = useState(value)
  useEffect(() => {
    const timer = window.setTimeout(() => setSettled(value), ms)
    return () => window.clearTimeout(timer)
  }, [value, ms])
  return settled
}
