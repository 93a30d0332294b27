import { t } from '@lingui/core/macro'
import { keepPreviousData, queryOptions } from '@tanstack/react-query'
import { api, unwrap } from '../../api/client'
import type { Intent, Joint, System } from '../../api/types'

/** Answers so far; an intent once the six questions are answered. */
export type Answers = Partial<Omit<Intent, 'metals' | 'thickness_mm' | 'joint'>> & {
  metals: [string | null, string | null]
  thickness: [number | null, number | null]
  joint: Partial<Joint>
}

export const FIRST: Answers = { metals: [null, null], thickness: [null, null], joint: {} }

export const proposalQuery = (intent: Intent | null, units: System) =>
  queryOptions({
    queryKey: ['propose', units, intent],
    queryFn: ({ signal }) => {
      if (!intent) throw new Error('not asked without an intent')
      return unwrap(api.POST('/api/propose', { body: { intent, units }, signal }))
    },
    enabled: intent !== null,
    staleTime: 60_000,
    retry: false,
    placeholderData: keepPreviousData,
  })

/** What is still to be answered, in the order of the questions. */
export function openQuestions(answers: Answers): string[] {
  return [
    answers.metals[0] ? '' : t`the metal`,
    answers.thickness[0] === null ? t`its thickness` : '',
    answers.joint.kind && answers.joint.weld ? '' : t`joint and weld`,
    answers.position ? '' : t`the position`,
    answers.process ? '' : t`the process`,
  ].filter(Boolean)
}

export function intentOf(answers: Answers): Intent | null {
  const { metals, thickness, joint, position, process, ...more } = answers
  if (!metals[0] || thickness[0] === null || !joint.kind || !joint.weld || !position || !process) return null
  return {
    ...more,
    format: 'grounded-bead/intent',
    version: 1,
    metals: metals[1] ? [metals[0], metals[1]] : [metals[0]],
    thickness_mm: thickness[1] === null ? [thickness[0]] : [thickness[0], thickness[1]],
    joint: {
      ...joint,
      kind: joint.kind,
      weld: joint.weld,
      sides: joint.sides ?? 'one',
      backing: joint.backing ?? 'none',
      back_gouge: joint.back_gouge ?? false,
    },
    position,
    process,
    // A fillet is welded alike from its root on.
    fill_process: joint.weld === 'fillet' ? null : (more.fill_process ?? null),
    overlap: more.overlap ?? 'half',
    trials: [],
    charts: [],
  }
}
