import type { ButtonHTMLAttributes } from 'react'

type Props = ButtonHTMLAttributes<HTMLButtonElement> & { look?: 'main' | 'plain' | 'quiet' }

const LOOKS = {
  main: 'bg-accent text-on-accent border-accent font-semibold hover:brightness-110',
  plain: 'bg-panel text-ink border-line font-medium hover:border-edge',
  quiet: 'bg-transparent text-accent border-transparent font-medium underline underline-offset-2 px-1',
}

/** A button; its text is a verb. */
export function Button({ look = 'plain', className = '', type = 'button', ...rest }: Props) {
  return (
    <button
      type={type}
      className={`rounded-sm border px-3 py-1.5 font-head text-[15px] disabled:opacity-50 ${LOOKS[look]} ${className}`}
      {...rest}
    />
  )
}
