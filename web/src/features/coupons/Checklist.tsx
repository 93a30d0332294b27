import { t } from '@lingui/core/macro'
import type { Answer, Coupon } from '../../api/types'
import type { SavePiece } from './useSavePiece'

const ANSWERS = [
  ['yes', t`yes`],
  ['no', t`no`],
  ['does-not-apply', t`not here`],
] as const

/** The questions before the first arc; every answer is kept on the coupon. */
export function Checklist({ coupon, disabled, onSave }: { coupon: Coupon; disabled: boolean; onSave: SavePiece }) {
  const given = new Map(coupon.piece.checklist.map((one) => [one.item, one]))
  const answer = (item: string, value: Answer['answer']) => {
    // The same key again takes an answer back.
    const back = given.get(item)?.answer === value
    onSave((now) => {
      const rest = now.checklist.filter((one) => one.item !== item)
      return { checklist: back ? rest : [...rest, { item, answer: value }] }
    })
  }
  return (
    <ul className="grid gap-1 pb-1">
      {coupon.checklist.map((one) => (
        <li key={one.id} className="flex items-center justify-between gap-3 border-b border-hair py-1 last:border-0">
          <p className="min-w-0 text-[14px]" title={one.why}>
            {one.question}
          </p>
          <div role="group" aria-label={one.question} className="flex shrink-0 gap-1">
            {ANSWERS.map(([key, words]) => {
              const chosen = given.get(one.id)?.answer === key
              const look = !chosen
                ? 'border-line'
                : key === 'no'
                  ? 'border-breach bg-breach text-panel'
                  : 'border-accent bg-accent text-on-accent'
              return (
                <button
                  type="button"
                  key={key}
                  aria-pressed={chosen}
                  disabled={disabled}
                  onClick={() => answer(one.id, key)}
                  className={`min-h-11 min-w-12 rounded-sm border px-2 font-head text-[15px] font-semibold disabled:opacity-60 ${look}`}
                >
                  {words}
                </button>
              )
            })}
          </div>
        </li>
      ))}
    </ul>
  )
}
