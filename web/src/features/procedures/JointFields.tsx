import type { Joint, Procedure } from '../../api/types'
import { withJoint, withJointKind, withPreparation, withSide, withWeld } from '../../domain/procedure'
import { capital, useTerms } from '../../app/terms'
import { BACKINGS, FACES, FORMS, GOUGES, JOINT_KINDS, weldOptions } from '../../domain/words'
import { Choice } from '../../ui/Choice'
import { QuantityField } from '../../ui/QuantityField'
import { Row } from './Row'

type Props = {
  document: Procedure
  /** Paths of the geometry's fields that this joint has; the core says which. */
  fields: readonly string[]
  onChange: (change: (before: Procedure) => Procedure) => void
  disabled: boolean
  errors: ReadonlyMap<string, string>
}

const AT = 'joint.preparation'

/** Kind of joint, weld, edge preparation and the numbers that its form has. */
export function JointFields({ document, fields, onChange, disabled, errors }: Props) {
  const { joint } = document
  const preparation = joint?.preparation
  const term = useTerms(document.code?.id)
  const word = (key: string) => capital(term(key))
  const has = new Set(fields)
  const number = (words: string, label: string, path: string, kind: 'gap' | 'angle', value: number | null | undefined, set: (value: number | null) => (before: Procedure) => Procedure) =>
    has.has(path) && (
      <Row words={words}>
        <QuantityField label={label} kind={kind} path={path} disabled={disabled} value={value} error={errors.get(path)} onChange={(next) => onChange(set(next))} />
      </Row>
    )
  const side = (index: 0 | 1) => preparation?.sides[index]
  const compound = preparation?.form === 'compound-bevel'
  return (
    <>
      <Row words="Joint">
        <div className="grid grid-cols-[76px_minmax(0,1fr)] gap-1.5">
          <Choice<Joint['kind']> label="Joint" path="joint" value={joint?.kind} options={JOINT_KINDS} disabled={disabled}
            onChange={(kind) => kind && onChange((before) => withJointKind(before, kind))} />
          <Choice<Joint['weld']> label="Weld" path="joint.weld" value={joint?.weld} options={weldOptions<Joint['weld']>(term)} disabled={disabled || !joint}
            onChange={(weld) => weld && onChange((before) => withWeld(before, weld))} />
        </div>
      </Row>
      {has.has(`${AT}.form`) && (
        <Row words="Edges">
          <Choice label="Edge form" path={`${AT}.form`} value={preparation?.form} options={FORMS} none="not stated" disabled={disabled}
            onChange={(form) => onChange((before) => (form ? withPreparation(before, { form: form as NonNullable<Joint['preparation']>['form'] }) : withJoint(before, { preparation: null })))} />
        </Row>
      )}
      {number(word('groove-angle'), word('groove-angle'), `${AT}.included_angle_deg`, 'angle', preparation?.included_angle_deg, (included_angle_deg) => (before) => withPreparation(before, { included_angle_deg }))}
      {number('Lower', 'Included angle of the lower flank', `${AT}.sides.0.angle_deg`, 'angle', side(0)?.angle_deg, (angle_deg) => (before) => withSide(before, 0, { angle_deg }))}
      {number('Upper', 'Included angle of the upper flank', `${AT}.sides.1.angle_deg`, 'angle', side(1)?.angle_deg, (angle_deg) => (before) => withSide(before, 1, { angle_deg }))}
      {number(word('root-gap'), word('root-gap'), `${AT}.root_gap_mm`, 'gap', preparation?.root_gap_mm, (root_gap_mm) => (before) => withPreparation(before, { root_gap_mm }))}
      {has.has(`${AT}.root_gap_mm`) && (
        <Row words="after tack">
          <QuantityField mode="range" label="Gap allowed after tacking" kind="gap" path={`${AT}.gap_allowed_mm`} disabled={disabled} placeholder="gap after tacking"
            value={preparation?.gap_allowed_mm} onChange={(gap_allowed_mm) => onChange((before) => withPreparation(before, { gap_allowed_mm }))} />
        </Row>
      )}
      {number(word('root-face'), word('root-face'), `${AT}.root_face_mm`, 'gap', preparation?.root_face_mm, (root_face_mm) => (before) => withPreparation(before, { root_face_mm }))}
      {number(compound ? 'to depth' : 'Depth', compound ? 'Depth of the lower flank' : 'Depth of the front side', `${AT}.sides.0.depth_mm`, 'gap', side(0)?.depth_mm, (depth_mm) => (before) => withSide(before, 0, { depth_mm }))}
      {number('at the back', 'Depth of the back side', `${AT}.sides.1.depth_mm`, 'gap', side(1)?.depth_mm, (depth_mm) => (before) => withSide(before, 1, { depth_mm }))}
      {number('Radius', 'Radius', `${AT}.sides.0.radius_mm`, 'gap', side(0)?.radius_mm, (radius_mm) => (before) => withSide(before, 0, { radius_mm }))}
      {number('Leg', 'Leg', 'joint.leg1_mm', 'gap', joint?.leg1_mm, (leg1_mm) => (before) => withJoint(before, { leg1_mm }))}
      {number('other leg', 'Other leg', 'joint.leg2_mm', 'gap', joint?.leg2_mm, (leg2_mm) => (before) => withJoint(before, { leg2_mm }))}
      {number(joint?.weld === 'fillet' ? 'or throat' : 'Throat', 'Throat', 'joint.throat_mm', 'gap', joint?.throat_mm, (throat_mm) => (before) => withJoint(before, { throat_mm }))}
      {has.has('joint.face') && (
        <Row words="Face">
          <div className="grid grid-cols-2 gap-1.5">
            <Choice label="Face" path="joint.face" value={joint?.face} options={FACES} none="not stated" disabled={disabled}
              onChange={(face) => onChange((before) => withJoint(before, { face: face as Joint['face'] | null, ...(face === 'convex' || face === 'concave' ? {} : { face_height_mm: null }) }))} />
            {has.has('joint.face_height_mm') && (
              <QuantityField label="Crown or hollow of the face" kind="gap" path="joint.face_height_mm" placeholder="height" disabled={disabled} value={joint?.face_height_mm}
                onChange={(face_height_mm) => onChange((before) => withJoint(before, { face_height_mm }))} />
            )}
          </div>
        </Row>
      )}
      {number('Between', 'Angle between the members', 'joint.dihedral_deg', 'angle', joint?.dihedral_deg, (dihedral_deg) => (before) => withJoint(before, { dihedral_deg }))}
      {number('Branch', 'Branch angle', 'joint.branch_angle_deg', 'angle', joint?.branch_angle_deg, (branch_angle_deg) => (before) => withJoint(before, { branch_angle_deg }))}
      {number('Cap', capital(`${term('cap-height')}, height`), 'joint.reinforcement_mm', 'gap', joint?.reinforcement_mm, (reinforcement_mm) => (before) => withJoint(before, { reinforcement_mm }))}
      {has.has('joint.backing') && (
        <Row words="Root">
          <div className="grid grid-cols-2 gap-1.5">
            <Choice label="Backing" path="joint.backing" value={joint?.backing} options={BACKINGS} disabled={disabled}
              onChange={(backing) => backing && onChange((before) => withJoint(before, { backing: backing as Joint['backing'] }))} />
            <Choice label="Back gouging" path="joint.back_gouge" value={joint?.back_gouge ? 'yes' : 'no'} options={GOUGES} disabled={disabled}
              onChange={(gouge) => onChange((before) => withJoint(before, { back_gouge: gouge === 'yes' }))} />
          </div>
        </Row>
      )}
      <Row words="Welded">
        <Choice label="Welded from" path="joint.sides" value={joint?.sides} disabled={disabled || !joint}
          options={[['one', 'from one side'], ['both', 'from both sides']]}
          onChange={(sides) => sides && onChange((before) => withJoint(before, { sides: sides as Joint['sides'] }))} />
      </Row>
      <Row words="Length">
        <QuantityField label="Length of the weld" kind="length" path="joint.length_mm" placeholder="for metal and time" disabled={disabled || !joint} value={joint?.length_mm}
          onChange={(length_mm) => onChange((before) => withJoint(before, { length_mm }))} />
      </Row>
    </>
  )
}
