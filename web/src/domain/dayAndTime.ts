/** A moment in the reader's time zone, as 2026-11-28 14:05. */
export function dayAndTime(iso: string): string {
  const at = new Date(iso)
  const two = (part: number) => String(part).padStart(2, '0')
  const day = [at.getFullYear(), two(at.getMonth() + 1), two(at.getDate())].join('-')
  return `${day} ${two(at.getHours())}:${two(at.getMinutes())}`
}
