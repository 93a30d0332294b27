import { t } from '@lingui/core/macro'
import { useState } from 'react'

import type { Procedure } from '../../api/types'
import { useSession } from '../../session/session'
import { withMetal, withThermal } from '../../domain/procedure'
import { withOwnMetal } from '../../domain/library'
import { COLUMNS, EVIDENCE, MAGNET, PLACES, POSITIONS, ROUTES } from '../../domain/words'
import { Choice } from '../../ui/Choice'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { CertificateDialog } from '../metals'
import { JointFields } from './JointFields'
import { MetalField } from './MetalField'
import { RequirementFields } from './RequirementFields'
import { Row } from './Row'

const MAGNET_KEYS = new Map<boolean | null, string>([
  [true, 'sticks'],
  [false, 'not'],
])

type Props = {
  document: Procedure
  /** Paths of the joint's fields, by the core. */
  fields: readonly string[]
  onChange: (change: (before: Procedure) => Procedure) => void
  disabled: boolean
  errors: ReadonlyMap<string, string>
}

/** What is to be joined: code, metals, joint, position, temperatures. */
export function Intent({ document, fields, onChange, disabled, errors }: Props) {
  const { codes } = useSession()
  const code = codes.find((one) => one.id === document.code?.id)
  const [paper, setPaper] = useState<0 | 1 | null>(null)
  return (
    <div className="grid grid-cols-[62px_minmax(0,1fr)] items-start gap-x-2 gap-y-[5px] text-[13px] [&>span]:pt-0.5">
      <Row words={t`Title`}>
        <TextField
          label={t`Title`}
          path="title"
          value={document.title}
          disabled={disabled}
          error={errors.get('title')}
          onChange={(title) => onChange((before) => ({ ...before, title }))}
        />
      </Row>
      <Row words={t`Code`}>
        <div className={code && code.levels.length > 0 ? 'grid grid-cols-[minmax(0,1fr)_74px] gap-1.5' : ''}>
          <Choice
            label={t`Code`}
            path="code.id"
            value={document.code?.id}
            none={t`no code`}
            disabled={disabled}
            options={codes.map((one) => [one.id, one.short] as const)}
            onChange={(id) =>
              onChange((before) => {
                const chosen = codes.find((one) => one.id === id)
                return {
                  ...before,
                  code: chosen
                    ? { id: chosen.id, level: chosen.levels.at(-1) ?? null, units: chosen.unit_column, route: 'test' }
                    : null,
                }
              })
            }
          />
          {code && code.levels.length > 0 && (
            <Choice
              label={t`Level`}
              path="code.level"
              value={document.code?.level ? String(document.code.level) : null}
              disabled={disabled}
              none={t`no level`}
              options={code.levels.map((level) => [String(level), t`level ${level}`] as const)}
              onChange={(level) =>
                onChange((before) => ({
                  ...before,
                  code: {
                    units: code.unit_column,
                    route: 'test',
                    ...before.code,
                    id: code.id,
                    level: level ? Number(level) : null,
                  },
                }))
              }
            />
          )}
        </div>
        {code?.prequalified && (
          <div className="mt-1.5 grid gap-1.5">
            <Choice
              label={t`Route`}
              path="code.route"
              value={document.code?.route}
              disabled={disabled}
              options={ROUTES}
              onChange={(route) =>
                route &&
                document.code &&
                onChange((before) => ({
                  ...before,
                  code: before.code ? { ...before.code, route: route as 'test' | 'prequalified' } : null,
                }))
              }
            />
            <Choice
              label={t`Printed column`}
              path="code.units"
              value={document.code?.units}
              disabled={disabled}
              options={COLUMNS}
              onChange={(units) =>
                units &&
                onChange((before) => ({
                  ...before,
                  code: before.code ? { ...before.code, units: units as 'si' | 'us' } : null,
                }))
              }
            />
          </div>
        )}
      </Row>
      {([0, 1] as const).map((index) => (
        <Row key={index} words={t`Metal ${index + 1}`}>
          <div className="grid grid-cols-[minmax(0,1fr)_104px] gap-1.5 max-[1150px]:grid-cols-2">
            <MetalField
              label={t`Metal ${index + 1} designation`}
              path={`base_metals.${String(index)}.designation`}
              disabled={disabled}
              value={document.base_metals[index]?.designation}
              thicknessMm={document.base_metals[index]?.thickness_mm}
              error={errors.get(`base_metals.${String(index)}.designation`)}
              onType={(designation) => onChange((before) => withMetal(before, index, { designation }))}
              onPick={(metal) =>
                onChange((before) =>
                  withOwnMetal(
                    withMetal(before, index, {
                      designation: metal.name,
                      standard: metal.standard,
                      condition: metal.condition,
                      groups: { iso_15608: metal.iso_15608, aws_d1_1: metal.aws_d1_1 },
                    }),
                    metal.own ?? null,
                  ),
                )
              }
            />
            <QuantityField
              label={t`Metal ${index + 1} thickness`}
              path={`base_metals.${String(index)}.thickness_mm`}
              kind="thickness"
              disabled={disabled}
              metal="steel"
              value={document.base_metals[index]?.thickness_mm}
              onChange={(thickness_mm, read) =>
                onChange((before) =>
                  withMetal(before, index, {
                    thickness_mm,
                    ...(read?.outside_diameter_mm ? { outside_diameter_mm: read.outside_diameter_mm } : {}),
                  }),
                )
              }
            />
            <Choice
              label={t`Metal ${index + 1} known by`}
              value={document.base_metals[index]?.identified_by}
              none={t`known by …`}
              disabled={disabled}
              options={EVIDENCE}
              path={`base_metals.${String(index)}.identified_by`}
              onChange={(identified_by) => onChange((before) => withMetal(before, index, { identified_by }))}
            />
            <Choice
              label={t`Metal ${index + 1} magnet`}
              none={t`magnet?`}
              disabled={disabled}
              options={MAGNET}
              value={MAGNET_KEYS.get(document.base_metals[index]?.magnet_sticks ?? null)}
              onChange={(magnet) =>
                onChange((before) =>
                  withMetal(before, index, { magnet_sticks: magnet === null ? null : magnet === 'sticks' }),
                )
              }
            />
            {document.base_metals[index] && (
              <button
                type="button"
                className="link col-span-2 truncate text-left text-[12px]"
                data-path={`base_metals.${String(index)}.chemistry`}
                onClick={() => setPaper(index)}
              >
                {document.base_metals[index].heat
                  ? t`heat ${document.base_metals[index].heat}`
                  : document.base_metals[index].chemistry || document.base_metals[index].certificate
                    ? t`certificate`
                    : disabled
                      ? ''
                      : t`Enter its certificate`}
              </button>
            )}
          </div>
        </Row>
      ))}
      <JointFields document={document} fields={fields} onChange={onChange} disabled={disabled} errors={errors} />
      <Row words={t`Position`}>
        <Choice
          label={t`Position`}
          path="positions"
          value={document.positions[0]}
          options={POSITIONS}
          none={t`not stated`}
          disabled={disabled}
          onChange={(position) =>
            onChange((before) => ({ ...before, positions: position ? ([position] as Procedure['positions']) : [] }))
          }
        />
      </Row>
      <Row words={t`Where`}>
        <div className="grid grid-cols-[minmax(0,1fr)_104px] gap-1.5">
          <Choice
            label={t`Where it is welded`}
            path="site.place"
            value={document.site?.place}
            options={PLACES}
            none={t`not stated`}
            disabled={disabled}
            onChange={(place) => onChange((before) => ({ ...before, site: { ...before.site, place: place } }))}
          />
          <QuantityField
            label={t`Wind at the joint`}
            kind="wind"
            path="site.wind_m_s"
            placeholder={t`wind`}
            disabled={disabled}
            value={document.site?.wind_m_s}
            onChange={(wind_m_s) => onChange((before) => ({ ...before, site: { ...before.site, wind_m_s } }))}
          />
        </div>
      </Row>
      <Row words={t`Preheat`}>
        <QuantityField
          label={t`Preheat, at least`}
          kind="temperature"
          path="thermal.preheat_min_c"
          disabled={disabled}
          placeholder={t`at least`}
          value={document.thermal?.preheat_min_c}
          onChange={(preheat_min_c) => onChange((before) => withThermal(before, { preheat_min_c }))}
        />
        {document.code && document.thermal?.preheat_min_c != null && (
          <TextField
            label={t`Reason for less preheat than the code’s table`}
            path="thermal.preheat_reason"
            placeholder={t`reason, if below the code’s table`}
            disabled={disabled}
            value={document.thermal.preheat_reason}
            error={errors.get('thermal.preheat_reason')}
            onChange={(preheat_reason) => onChange((before) => withThermal(before, { preheat_reason }))}
          />
        )}
      </Row>
      <Row words={t`Interpass`}>
        <QuantityField
          label={t`Interpass, at most`}
          kind="temperature"
          path="thermal.interpass_max_c"
          disabled={disabled}
          placeholder={t`at most`}
          value={document.thermal?.interpass_max_c}
          onChange={(interpass_max_c) => onChange((before) => withThermal(before, { interpass_max_c }))}
        />
      </Row>
      <Row words={t`Heat input`}>
        <QuantityField
          mode="range"
          label={t`Heat input wanted`}
          kind="heat_input"
          path="thermal.heat_input_kj_mm"
          disabled={disabled}
          placeholder={t`wanted range`}
          value={document.thermal?.heat_input_kj_mm}
          onChange={(heat_input_kj_mm) => onChange((before) => withThermal(before, { heat_input_kj_mm }))}
        />
      </Row>
      <RequirementFields document={document} onChange={onChange} disabled={disabled} errors={errors} />
      <Row words={t`Notes`}>
        <TextField
          label={t`Notes`}
          path="notes"
          rows={2}
          value={document.notes}
          disabled={disabled}
          error={errors.get('notes')}
          onChange={(notes) => onChange((before) => ({ ...before, notes }))}
        />
      </Row>
      {paper !== null && (
        <CertificateDialog
          open
          title={t`Certificate of metal ${paper + 1}${document.base_metals[paper]?.designation ? `, ${document.base_metals[paper].designation}` : ''}`}
          metal={document.base_metals[paper] ?? {}}
          disabled={disabled}
          onClose={() => setPaper(null)}
          onTake={(changes) => onChange((before) => withMetal(before, paper, changes))}
        />
      )}
    </div>
  )
}
