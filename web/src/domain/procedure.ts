import type { BaseMetal, Joint, Pass, Procedure, Thermal } from '../api/types'

type Changes = Partial<Omit<Pass, 'number'>>

export const EMPTY: Procedure = {
  format: 'grounded-bead/procedure',
  version: 1,
  base_metals: [],
  positions: [],
  passes: [],
}

export function passesOf(document: Procedure): Pass[] {
  return document.passes
}

/** Change some passes; their numbers stay. A function is given each pass as it stands by then. */
export function withPasses(
  document: Procedure,
  numbers: readonly number[],
  changes: Changes | ((pass: Pass) => Changes),
): Procedure {
  const wanted = new Set(numbers)
  return {
    ...document,
    passes: passesOf(document).map((one) =>
      wanted.has(one.number) ? { ...one, ...(typeof changes === 'function' ? changes(one) : changes) } : one,
    ),
  }
}

/** Add a pass above this one (or the first one), copying its set-up; numbers are given anew. */
export function addPass(document: Procedure, above: number | null, copyAll = false): Procedure {
  const passes = passesOf(document)
  const index = above === null ? passes.length - 1 : passes.findIndex((one) => one.number === above)
  const model = passes[index]
  const fresh: Pass = model
    ? { ...model, id: newId(), role: copyAll || model.role !== 'root' ? model.role : 'fill' }
    : { id: newId(), number: 1, side: 1, role: 'root', process: '135' }
  return renumbered(document, [...passes.slice(0, index + 1), fresh, ...passes.slice(index + 1)])
}

/** What a new pass is known by while others come and go; no two people make the same. */
export function newId(): string {
  return [...crypto.getRandomValues(new Uint8Array(8))].map((byte) => byte.toString(16).padStart(2, '0')).join('')
}

export function removePass(document: Procedure, number: number): Procedure {
  return renumbered(
    document,
    passesOf(document).filter((one) => one.number !== number),
  )
}

function renumbered(document: Procedure, passes: Pass[]): Procedure {
  return { ...document, passes: passes.map((one, index) => ({ ...one, number: index + 1 })) }
}

export function withThermal(document: Procedure, changes: Partial<Thermal>): Procedure {
  return { ...document, thermal: { ...document.thermal, ...changes } }
}

export function withRequirements(
  document: Procedure,
  changes: Partial<NonNullable<Procedure['requirements']>>,
): Procedure {
  const next = { ...document.requirements, ...changes }
  return {
    ...document,
    requirements: Object.values(next).some((value) => value !== null && value !== undefined) ? next : null,
  }
}

export function withJoint(document: Procedure, changes: Partial<Joint>): Procedure {
  const joint: Joint = document.joint ?? {
    kind: 'butt',
    weld: 'cjp-groove',
    sides: 'one',
    backing: 'none',
    back_gouge: false,
  }
  return { ...document, joint: { ...joint, ...changes } }
}

export function withMetal(document: Procedure, index: 0 | 1, changes: Partial<BaseMetal>): Procedure {
  const metals = [document.base_metals[0] ?? {}, document.base_metals[1] ?? {}]
  metals[index] = { ...metals[index], ...changes }
  return { ...document, base_metals: metals }
}

/** Passes that lie next to each other with the same set-up: one heading in the ladder. */
export type Group = { key: string; passes: Pass[] }

export function groupsOf(passes: readonly Pass[]): Group[] {
  const groups: Group[] = []
  for (const one of passes) {
    const key = JSON.stringify([one.process, one.filler, one.gas?.components_percent, one.polarity, one.transfer])
    const last = groups.at(-1)
    if (last?.key === key) last.passes.push(one)
    else groups.push({ key, passes: [one] })
  }
  return groups
}

/** A gas as it is written: base gas, then the others by falling share. */
export function gasText(components: Record<string, number> | null | undefined): string {
  const parts = Object.entries(components ?? {})
    .filter(([, share]) => share > 0)
    .sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0]))
  return parts.map(([name, share], i) => (i === 0 ? name : `${String(share)}${name}`)).join('+')
}

/** The joint of another kind, keeping what may still fit; a lap and a T begin as fillets. */
export function withJointKind(document: Procedure, kind: Joint['kind']): Procedure {
  const weld = document.joint ? document.joint.weld : kind === 't' || kind === 'lap' ? 'fillet' : 'cjp-groove'
  return withJoint(document, { kind, weld: kind === 'lap' ? 'fillet' : weld })
}

/** The joint with another weld; a groove begins without a preparation, a fillet has none. */
export function withWeld(document: Procedure, weld: Joint['weld']): Procedure {
  if (weld === 'fillet') return withJoint(document, { weld, preparation: null, backing: 'none', back_gouge: false })
  return withJoint(document, { weld, leg1_mm: null, leg2_mm: null, throat_mm: null, face: null, face_height_mm: null })
}

type Preparation = NonNullable<Joint['preparation']>
type Side = Preparation['sides'][number]

/** Change the preparation; its form has to be chosen before anything else of it is typed. */
export function withPreparation(document: Procedure, changes: Partial<Preparation>): Procedure {
  const before = document.joint?.preparation
  const form = changes.form ?? before?.form
  return form ? withJoint(document, { preparation: { sides: [], ...before, ...changes, form } }) : document
}

/** Change one side of the preparation. */
export function withSide(document: Procedure, index: 0 | 1, changes: Partial<Side>): Procedure {
  const sides: Side[] = [...(document.joint?.preparation?.sides ?? [])]
  while (sides.length <= index) sides.push({})
  sides[index] = { ...sides[index], ...changes }
  return withPreparation(document, { sides })
}
