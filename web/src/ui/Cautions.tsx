import { t } from '@lingui/core/macro'

/** Cautions, what is special to the procedure first, one below the other. */
export function Cautions({ texts }: { texts: readonly string[] }) {
  return (
    <ul
      aria-label={t`Cautions`}
      className="mt-2 grid gap-1 border-l-3 border-straw bg-note px-2.5 py-1.5 text-[12.5px]"
    >
      {texts.map((text) => (
        <li key={text}>{text}</li>
      ))}
    </ul>
  )
}
