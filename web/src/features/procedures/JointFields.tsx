import { t } from '@lingui/core/macro'
import type { Joint, Procedure } from '../../api/types'
import { withJoint, withJointKind, withPreparation, withSide, withWeld } from '../../domain/procedure'
import { capital, useTerms } from '../../session/terms'
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
  const number = (
    words: string,
    label: string,
    path: string,
    kind: 'gap' | 'angle',
    value: number | null | undefined,
    set: (value: number | null) => (before: Procedure) => Procedure,
  ) =>
    has.has(path) && (
      <Row words={words}>
        <QuantityField
          label={label}
          kind={kind}
          path={path}
          disabled={disabled}
          value={value}
          error={errors.get(path)}
          onChange={(next) => onChange(set(next))}
        />
      </Row>
    )
  const side = (index: 0 | 1) => preparation?.sides[index]
  const compound = preparation?.form === 'compound-bevel'
  return (
    <>
      <Row words={t`Joint`}>
        <div className="grid grid-cols-[76px_minmax(0,1fr)] gap-1.5">
          <Choice<Joint['kind']>
            label={t`Joint`}
            path="joint"
            value={joint?.kind}
            options={JOINT_KINDS}
            disabled={disabled}
            onChange={(kind) => kind && onChange((before) => withJointKind(before, kind))}
          />
          <Choice<Joint['weld']>
            label={t`Weld`}
            path="joint.weld"
            value={joint?.weld}
            options={weldOptions<Joint['weld']>(term)}
            disabled={disabled || !joint}
            onChange={(weld) => weld && onChange((before) => withWeld(before, weld))}
          />
        </div>
      </Row>
      {has.has(`${AT}.form`) && (
        <Row words={t`Edges`}>
          <Choice
            label={t`Edge form`}
            path={`${AT}.form`}
            value={preparation?.form}
            options={FORMS}
            none={t`not stated`}
            disabled={disabled}
            onChange={(form) =>
              onChange((before) =>
                form
                  ? withPreparation(before, { form: form as NonNullable<Joint['preparation']>['form'] })
                  : withJoint(before, { preparation: null }),
              )
            }
          />
        </Row>
      )}
      {number(
        word('groove-angle'),
        word('groove-angle'),
        `${AT}.included_angle_deg`,
        'angle',
        preparation?.included_angle_deg,
        (included_angle_deg) => (before) => withPreparation(before, { included_angle_deg }),
      )}
      {number(
        t`Lower`,
        t`Included angle of the lower flank`,
        `${AT}.sides.0.angle_deg`,
        'angle',
        side(0)?.angle_deg,
        (angle_deg) => (before) => withSide(before, 0, { angle_deg }),
      )}
      {number(
        t`Upper`,
        t`Included angle of the upper flank`,
        `${AT}.sides.1.angle_deg`,
        'angle',
        side(1)?.angle_deg,
        (angle_deg) => (before) => withSide(before, 1, { angle_deg }),
      )}
      {number(
        word('root-gap'),
        word('root-gap'),
        `${AT}.root_gap_mm`,
        'gap',
        preparation?.root_gap_mm,
        (root_gap_mm) => (before) => withPreparation(before, { root_gap_mm }),
      )}
      {has.has(`${AT}.root_gap_mm`) && (
        <Row words={t`after tack`}>
          <QuantityField
            mode="range"
            label={t`Gap allowed after tacking`}
            kind="gap"
            path={`${AT}.gap_allowed_mm`}
            disabled={disabled}
            placeholder={t`gap after tacking`}
            value={preparation?.gap_allowed_mm}
            onChange={(gap_allowed_mm) => onChange((before) => withPreparation(before, { gap_allowed_mm }))}
          />
        </Row>
      )}
      {number(
        word('root-face'),
        word('root-face'),
        `${AT}.root_face_mm`,
        'gap',
        preparation?.root_face_mm,
        (root_face_mm) => (before) => withPreparation(before, { root_face_mm }),
      )}
      {number(
        compound ? t`to depth` : t`Depth`,
        compound ? t`Depth of the lower flank` : t`Depth of the front side`,
        `${AT}.sides.0.depth_mm`,
        'gap',
        side(0)?.depth_mm,
        (depth_mm) => (before) => withSide(before, 0, { depth_mm }),
      )}
      {number(
        t`at the back`,
        t`Depth of the back side`,
        `${AT}.sides.1.depth_mm`,
        'gap',
        side(1)?.depth_mm,
        (depth_mm) => (before) => withSide(before, 1, { depth_mm }),
      )}
      {number(
        t`Radius`,
        t`Radius`,
        `${AT}.sides.0.radius_mm`,
        'gap',
        side(0)?.radius_mm,
        (radius_mm) => (before) => withSide(before, 0, { radius_mm }),
      )}
      {number(
        t`Leg`,
        t`Leg`,
        'joint.leg1_mm',
        'gap',
        joint?.leg1_mm,
        (leg1_mm) => (before) => withJoint(before, { leg1_mm }),
      )}
      {number(
        t`other leg`,
        t`Other leg`,
        'joint.leg2_mm',
        'gap',
        joint?.leg2_mm,
        (leg2_mm) => (before) => withJoint(before, { leg2_mm }),
      )}
      {number(
        joint?.weld === 'fillet' ? t`or throat` : t`Throat`,
        t`Throat`,
        'joint.throat_mm',
        'gap',
        joint?.throat_mm,
        (throat_mm) => (before) => withJoint(before, { throat_mm }),
      )}
      {has.has('joint.face') && (
        <Row words={t`Face`}>
          <div className="grid grid-cols-2 gap-1.5">
            <Choice
              label={t`Face`}
              path="joint.face"
              value={joint?.face}
              options={FACES}
              none={t`not stated`}
              disabled={disabled}
              onChange={(face) =>
                onChange((before) =>
                  withJoint(before, {
                    face: face as Joint['face'] | null,
                    ...(face === 'convex' || face === 'concave' ? {} : { face_height_mm: null }),
                  }),
                )
              }
            />
            {has.has('joint.face_height_mm') && (
              <QuantityField
                label={t`Crown or hollow of the face`}
                kind="gap"
                path="joint.face_height_mm"
                placeholder={t`height`}
                disabled={disabled}
                value={joint?.face_height_mm}
                onChange={(face_height_mm) => onChange((before) => withJoint(before, { face_height_mm }))}
              />
            )}
          </div>
        </Row>
      )}
      {number(
        t`Between`,
        t`Angle between the members`,
        'joint.dihedral_deg',
        'angle',
        joint?.dihedral_deg,
        (dihedral_deg) => (before) => withJoint(before, { dihedral_deg }),
      )}
      {number(
        t`Branch`,
        t`Branch angle`,
        'joint.branch_angle_deg',
        'angle',
        joint?.branch_angle_deg,
        (branch_angle_deg) => (before) => withJoint(before, { branch_angle_deg }),
      )}
      {number(
        t`Cap`,
        capital(t`${term('cap-height')}, height`),
        'joint.reinforcement_mm',
        'gap',
        joint?.reinforcement_mm,
        (reinforcement_mm) => (before) => withJoint(before, { reinforcement_mm }),
      )}
      {has.has('joint.backing') && (
        <Row words={t`Root`}>
          <div className="grid grid-cols-2 gap-1.5">
            <Choice
              label={t`Backing`}
              path="joint.backing"
              value={joint?.backing}
              options={BACKINGS}
              disabled={disabled}
              onChange={(backing) =>
                backing && onChange((before) => withJoint(before, { backing: backing as Joint['backing'] }))
              }
            />
            <Choice
              label={t`Back gouging`}
              path="joint.back_gouge"
              value={joint?.back_gouge ? 'yes' : 'no'}
              options={GOUGES}
              disabled={disabled}
              onChange={(gouge) => onChange((before) => withJoint(before, { back_gouge: gouge === 'yes' }))}
            />
          </div>
        </Row>
      )}
      <Row words={t`Welded`}>
        <Choice
          label={t`Welded from`}
          path="joint.sides"
          value={joint?.sides}
          disabled={disabled || !joint}
          options={[
            ['one', t`from one side`],
            ['both', t`from both sides`],
          ]}
          onChange={(sides) => sides && onChange((before) => withJoint(before, { sides: sides as Joint['sides'] }))}
        />
      </Row>
      <Row words={t`Length`}>
        <QuantityField
          label={t`Length of the weld`}
          kind="length"
          path="joint.length_mm"
          placeholder={t`for metal and time`}
          disabled={disabled || !joint}
          value={joint?.length_mm}
          onChange={(length_mm) => onChange((before) => withJoint(before, { length_mm }))}
        />
      </Row>
    </>
  )
}
