import { Fragment, useState } from 'react'

import type { Evaluation, Finding } from '../../api/types'
import { PROVENANCE } from '../../domain/words'
import { MARK_WORDS, MarkIcon, markOf, type Mark } from '../../ui/Verdict'

const ORDER: readonly Mark[] = ['breach', 'caution', 'unknown', 'holds']

/** Put the cursor in the field that a finding is about. */
export function goToField(path: string): void {
  for (let at = path; at; at = at.slice(0, Math.max(at.lastIndexOf('.'), 0))) {
    const field = document.querySelector<HTMLElement>(`[data-path="${CSS.escape(at)}"]:not([disabled])`)
    if (field) {
      field.scrollIntoView({ block: 'center' })
      field.focus()
      return
    }
  }
}

/** The checks that answer beside the work. */
export function Checks({ evaluation, onGo }: { evaluation: Evaluation | undefined; onGo: (path: string) => void }) {
  const [all, setAll] = useState(false)
  const findings = evaluation?.findings ?? []
  const counted = ORDER.map((mark) => [mark, findings.filter((one) => markOf(one) === mark).length] as const)
  const open = findings.filter((one) => markOf(one) !== 'holds')
  const holding = findings.filter((one) => markOf(one) === 'holds')
  return (
    <section aria-label="Checks" aria-live="polite">
      <h2 className="flex items-baseline gap-3 border-b border-line pb-1.5 text-[17px]">
        Checks
        <span className="flex gap-2.5 font-sans text-[13px] font-normal text-steel">
          {counted.map(([mark, count]) => (
            <span key={mark} title={MARK_WORDS[mark]} className="flex items-center gap-1">
              <MarkIcon mark={mark} /> {count}
            </span>
          ))}
        </span>
      </h2>
      {open.map((finding, index) => (
        <One key={`${finding.rule}${finding.path}${String(index)}`} finding={finding} onGo={onGo} />
      ))}
      {evaluation && evaluation.missing.length > 0 && (
        <details className="border-t border-line py-2 text-[13px]">
          <summary className="text-steel">Go to what is not stated</summary>
          {evaluation.missing.map((one, index) => (
            <Fragment key={one.path}>
              {index > 0 && ', '}
              <button type="button" className="link text-left" onClick={() => onGo(one.path)}>
                {one.message}
              </button>
            </Fragment>
          ))}
        </details>
      )}
      {holding.length > 0 && (
        <p className="flex items-center gap-1.5 border-t border-line py-2 text-[13px]">
          <MarkIcon mark="holds" silent /> {holding.length} {holding.length === 1 ? 'check holds' : 'checks hold'}.
          <button type="button" className="link" aria-expanded={all} onClick={() => setAll(!all)}>
            {all ? 'Hide them' : 'Show them'}
          </button>
        </p>
      )}
      {all && holding.map((finding, index) => <One key={`${finding.rule}${finding.path}${String(index)}`} finding={finding} onGo={onGo} />)}
      {evaluation && (
        <p className="mt-2 border-l-3 border-straw bg-note px-2.5 py-1.5 text-[12.5px]">{evaluation.cautions.join(' ')}</p>
      )}
    </section>
  )
}

function One({ finding, onGo }: { finding: Finding; onGo: (path: string) => void }) {
  const mark = markOf(finding)
  return (
    <article className="border-t border-line py-2 text-[13px] first-of-type:border-t-0">
      <h3 className="flex items-start gap-1.5 text-[15px]">
        <span className="mt-[3px]">
          <MarkIcon mark={mark} />
        </span>
        {finding.path && mark !== 'holds' ? (
          <button type="button" className="text-left hover:underline" onClick={() => onGo(finding.path)}>
            {finding.title}
          </button>
        ) : (
          finding.title
        )}
      </h3>
      <p>
        {finding.message} {finding.remedy}
      </p>
      <Sources citations={finding.citations} />
    </article>
  )
}

/** Where a finding's numbers come from: the first at once, the others on asking. */
function Sources({ citations }: { citations: Finding['citations'] }) {
  const lines = citations.map(
    (one) =>
      `${[one.edition ? `${one.document}:${one.edition}` : one.document, one.clause].filter(Boolean).join(', ')} · ${PROVENANCE[one.provenance] ?? one.provenance}`,
  )
  const [first, ...others] = lines
  if (!first) return null
  if (others.length === 0) return <p className="mt-0.5 text-[11.5px] text-steel2">{first}</p>
  return (
    <details className="mt-0.5 text-[11.5px] text-steel2">
      <summary>
        {first} · {others.length} more
      </summary>
      {others.map((line) => (
        <p key={line}>{line}</p>
      ))}
    </details>
  )
}
