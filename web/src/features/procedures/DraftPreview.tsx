import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useState } from 'react'

import type { Pass, Proposal, Reason } from '../../api/types'
import { useUnits } from '../../session/units'
import { pathWords } from '../../domain/fieldWords'
import { gasText, passesOf } from '../../domain/procedure'
import { BACKINGS, inWords, FORMS, PROVENANCE, ROLES, SOURCES } from '../../domain/words'
import { Notice } from '../../ui/Notice'
import { SectionDrawing } from '../../ui/SectionDrawing'
import { MarkIcon, markOf } from '../../ui/Verdict'
import { ChartBands } from './ChartBands'
import { fixed } from '../../session/language'

const words = (list: readonly (readonly [string, string])[], key: string) =>
  list.find(([one]) => one === key)?.[1] ?? key

/** Passes in a row that are welded alike, as one line of the table. */
function alike(passes: readonly Pass[], beads: ReadonlyMap<number, number>): [Pass, ...Pass[]][] {
  const key = (one: Pass) =>
    JSON.stringify([
      one.side,
      one.role,
      one.transfer,
      one.current_a,
      one.voltage_v,
      one.wire_feed_m_min,
      one.travel_mm_min,
      beads.get(one.number)?.toFixed(1),
    ])
  const groups: [Pass, ...Pass[]][] = []
  for (const one of passes) {
    const last = groups.at(-1)
    if (last && key(last[0]) === key(one)) last.push(one)
    else groups.push([one])
  }
  return groups
}

/** The proposed draft at a glance: joint, temperatures, passes, and why. */
export function DraftPreview({ proposal, stale }: { proposal: Proposal; stale: boolean }) {
  const units = useUnits()
  const celsius = (value: number | null | undefined) =>
    value == null ? '—' : `${units.value(value, 'temperature')} ${units.unit('temperature')}`
  const [lit, setLit] = useState<number | null>(null)
  const { procedure, evaluation } = proposal
  const passes = passesOf(procedure)
  const beads = new Map((evaluation.section?.beads ?? []).map((one) => [one.pass_number, one.area_mm2]))
  const heat = new Map(evaluation.heat_input.map((one) => [one.pass_number, one.max_kj_mm]))
  const thermal = procedure.thermal
  const prequalified = evaluation.findings.find((one) => one.rule === 'prequalified.verdict')
  const open = evaluation.findings.filter((one) => one.verdict === 'violates')
  const range = (value: { min: number; max: number } | null | undefined, kind: string) =>
    value ? units.range(value, kind) : '—'
  const form = procedure.joint?.preparation?.form
  return (
    <div className={stale ? 'opacity-60' : ''} aria-busy={stale}>
      <div className="grid grid-cols-[minmax(0,300px)_minmax(0,1fr)] gap-4">
        <div className="panel grid h-[250px] place-items-center p-2">
          {evaluation.drawing && (
            <SectionDrawing drawing={evaluation.drawing} heat={heat} lit={lit} onLight={setLit} fit />
          )}
        </div>
        <div>
          <h2 className="text-[19px]">{procedure.title}</h2>
          <dl className="mt-1.5 grid grid-cols-[auto_minmax(0,1fr)] gap-x-4 gap-y-1 text-[13px] [&>dt]:text-steel2">
            <dt>
              <Trans>Edges</Trans>
            </dt>
            <dd>
              {form
                ? `${words(FORMS, form)}${procedure.joint?.back_gouge ? t`, gouged from the back` : ''}${procedure.joint?.backing && procedure.joint.backing !== 'none' ? `, ${words(BACKINGS, procedure.joint.backing)}` : ''}`
                : t`fillet, leg ${procedure.joint?.leg1_mm == null ? '—' : units.value(procedure.joint.leg1_mm, 'gap')} ${units.unit('gap')}`}
            </dd>
            <dt>
              <Trans>Filler, gas</Trans>
            </dt>
            <dd>
              {[
                ...new Set(
                  passes.map((one) => `${one.filler?.designation ?? '—'} ${one.filler?.nominal ?? ''}`.trim()),
                ),
              ].join(', ')}
              {passes[0]?.gas ? ` · ${gasText(passes[0].gas.components_percent)}` : ''}
            </dd>
            <dt>
              <Trans>Temperatures</Trans>
            </dt>
            <dd>
              {t`at least ${celsius(thermal?.preheat_min_c)} before a pass, at most ${celsius(thermal?.interpass_max_c)}`}
              {thermal?.pwht?.hold_c
                ? t`; tempered at ${units.range(thermal.pwht.hold_c, 'temperature')} ${units.unit('temperature')} for ${thermal.pwht.hold_min ?? 0} min`
                : ''}
            </dd>
            <dt>
              <Trans>Heat input</Trans>
            </dt>
            <dd>
              {range(thermal?.heat_input_kj_mm, 'heat_input')} {units.unit('heat_input')}
            </dd>
            <dt>
              <Trans>Metal and time</Trans>
            </dt>
            <dd>
              {evaluation.use ? t`${fixed(evaluation.use.weld_metal_kg_m, 2)} kg weld metal a metre` : '—'}
              {evaluation.use?.arc_min_m != null ? t`, ${fixed(evaluation.use.arc_min_m, 0)} min arc time a metre` : ''}
            </dd>
          </dl>
          {prequalified && (
            <p className="mt-2 flex items-start gap-1.5 text-[13px]">
              <span className="mt-0.5">
                <MarkIcon mark={markOf(prequalified)} />
              </span>
              <span>
                <b>{prequalified.title}.</b> {prequalified.message}
              </span>
            </p>
          )}
        </div>
      </div>
      {proposal.collisions.length > 0 && (
        <Notice mark="caution" className="mt-3 text-[13px]">
          <Trans>Limits that cannot all be kept: {proposal.collisions.join('; ')}.</Trans>
        </Notice>
      )}
      {open.length > 0 && (
        <Notice mark="breach" className="mt-3 text-[13px]">
          {open.map((one) => one.message).join(' ')}
        </Notice>
      )}
      <table className="panel mt-3 w-full text-[13px]">
        <thead className="label text-left">
          <tr className="border-b border-line">
            {[
              t`Pass`,
              t`Layer`,
              t`Transfer`,
              t`Amps, ${units.unit('current')}`,
              t`Volts, ${units.unit('voltage')}`,
              t`Feed, ${units.unit('wire_feed')}`,
              t`Travel, ${units.unit('travel')}`,
              t`Bead, ${units.unit('area')}`,
              t`Heat input, ${units.unit('heat_input')}`,
            ].map((one) => (
              <th key={one} className="px-2.5 py-1.5 font-medium">
                {one}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {alike(passes, beads).map(([one, ...others]) => {
            const last = others.at(-1) ?? one
            const found = evaluation.heat_input.find((heatOf) => heatOf.pass_number === one.number)
            const bead = beads.get(one.number)
            const layers =
              one.layer === last.layer ? String(one.layer ?? '—') : t`${one.layer ?? '—'} to ${last.layer ?? '—'}`
            return (
              <tr
                key={one.number}
                className={`border-b border-hair ${lit !== null && lit >= one.number && lit <= last.number ? 'bg-accent-soft' : ''}`}
                onMouseEnter={() => setLit(one.number)}
                onMouseLeave={() => setLit(null)}
              >
                <td className="px-2.5 py-1.5 font-semibold">
                  {others.length > 0 ? t`${one.number} to ${last.number}` : one.number} {words(ROLES, one.role)}
                  {one.side === 2 ? t`, side 2` : ''}
                </td>
                <td className="px-2.5 py-1.5">{layers}</td>
                <td className="px-2.5 py-1.5">{one.transfer ? inWords(one.transfer) : '—'}</td>
                <td className="px-2.5 py-1.5">{range(one.current_a, 'current')}</td>
                <td className="px-2.5 py-1.5">{range(one.voltage_v, 'voltage')}</td>
                <td className="px-2.5 py-1.5">{range(one.wire_feed_m_min, 'wire_feed')}</td>
                <td className="px-2.5 py-1.5">{range(one.travel_mm_min, 'travel')}</td>
                <td className="px-2.5 py-1.5">{bead ? units.value(bead, 'area') : '—'}</td>
                <td className="px-2.5 py-1.5">
                  {found ? units.range({ min: found.min_kj_mm, max: found.max_kj_mm }, 'heat_input') : '—'}
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
      <ChartBands groups={proposal.bands} />
      <Reasons reasons={proposal.reasons} />
    </div>
  )
}

function Reasons({ reasons }: { reasons: readonly Reason[] }) {
  return (
    <section aria-label={t`Why`} className="mt-4">
      <h2 className="border-b border-line pb-1 text-[17px]">
        <Trans>Why these numbers</Trans>
      </h2>
      <dl className="grid grid-cols-[190px_minmax(0,1fr)] gap-x-4 text-[13px]">
        {reasons.map((one, index) => (
          <div key={index} className="col-span-2 grid grid-cols-subgrid border-b border-hair py-1">
            <dt className="text-steel2">{pathWords(one.path.replace('passes.*.', ''))}</dt>
            <dd>
              {one.text}
              <span className="text-steel2">
                {' '}
                · {words(SOURCES, one.source)}
                {one.citation.document === 'common practice'
                  ? ''
                  : `, ${[one.citation.edition ? `${one.citation.document}:${one.citation.edition}` : one.citation.document, one.citation.clause].filter(Boolean).join(', ')} (${PROVENANCE[one.citation.provenance] ?? one.citation.provenance})`}
              </span>
            </dd>
          </div>
        ))}
      </dl>
    </section>
  )
}
