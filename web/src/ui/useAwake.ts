import { useEffect } from 'react'

/** The screen stays on while something runs, where the device can do that. */
export function useAwake(running: boolean): void {
  useEffect(() => {
    if (!running || !('wakeLock' in navigator)) return
    let held: WakeLockSentinel | null = null
    let over = false
    const ask = () => {
      // The device takes it away with the page out of sight, and gives it again.
      if (document.visibilityState !== 'visible') return
      navigator.wakeLock
        .request('screen')
        .then((lock) => (over ? lock.release() : void (held = lock)))
        .catch(() => undefined)
    }
    ask()
    document.addEventListener('visibilitychange', ask)
    return () => {
      over = true
      document.removeEventListener('visibilitychange', ask)
      void held?.release()
    }
  }, [running])
}
