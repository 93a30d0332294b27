import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { Fragment, useState } from 'react'

import type { Evaluation, Finding } from '../../api/types'
import { Cautions } from '../../ui/Cautions'
import { Sources } from '../../ui/Sources'
import { MARK_WORDS, MarkIcon, markOf, type Mark } from '../../ui/Verdict'

const PASS = /, pass (\d+)$/
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

/** Findings that say the same of several passes, as one. */
export function together(findings: readonly Finding[]): Finding[] {
  const groups = new Map<string, { first: Finding; passes: string[] }>()
  for (const one of findings) {
    const pass = PASS.exec(one.title)?.[1]
    const key = pass
      ? [one.rule, one.verdict, one.title.replace(PASS, ''), one.message, one.remedy].join('|')
      : String(groups.size)
    const group = groups.get(key)
    if (group && pass) group.passes.push(pass)
    else groups.set(key, { first: one, passes: pass ? [pass] : [] })
  }
  return [...groups.values()].map(({ first, passes }) =>
    passes.length < 2
      ? first
      : {
          ...first,
          title: t`${first.title.replace(PASS, '')}, passes ${passes.slice(0, -1).join(', ')} and ${passes.at(-1) ?? ''}`,
        },
  )
}

/** The checks that answer beside the work. */
export function Checks({ evaluation, onGo }: { evaluation: Evaluation | undefined; onGo: (path: string) => void }) {
  const [all, setAll] = useState(false)
  const findings = evaluation?.findings ?? []
  const counted = ORDER.map((mark) => [mark, findings.filter((one) => markOf(one) === mark).length] as const)
  const open = together(findings.filter((one) => markOf(one) !== 'holds'))
  const holding = findings.filter((one) => markOf(one) === 'holds')
  return (
    <section aria-label={t`Checks`} aria-live="polite">
      <h2 className="flex items-baseline gap-3 border-b border-line pb-1.5 text-[17px]">
        <Trans>Checks</Trans>
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
          <summary className="text-steel">
            <Trans>Go to what is not stated</Trans>
          </summary>
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
          <MarkIcon mark="holds" silent /> {plural(holding.length, { one: '# check holds', other: '# checks hold' })}.
          <button type="button" className="link" aria-expanded={all} onClick={() => setAll(!all)}>
            {all ? t`Hide them` : t`Show them`}
          </button>
        </p>
      )}
      {all &&
        holding.map((finding, index) => (
          <One key={`${finding.rule}${finding.path}${String(index)}`} finding={finding} onGo={onGo} />
        ))}
      {evaluation && <Cautions texts={evaluation.cautions} />}
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
