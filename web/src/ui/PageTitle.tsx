import { useTabTitle } from './useTabTitle'

type Props = { words: string; more?: string; className?: string; title?: string }

/** The heading of a page, and of the browser's tab; `more` is said in the tab only. */
export function PageTitle({ words, more, className = '', title }: Props) {
  useTabTitle(more, words)
  return (
    <h1 className={`text-[25px] ${className}`} {...(title ? { title } : {})}>
      {words}
    </h1>
  )
}
