/** Small pictures of faults: the weld in section or from above, the fault in the colour of a breach. */

type Base = 'section' | 'above' | 'fillet' | 'wire' | 'tungsten' | 'gauge' | 'bend' | 'none'
type Shape = { base: Base; line?: string; fill?: string }

const CRACK = 'M8 15l6-2 5 3 6-3 5 2 7-2'
const SHAPES: Readonly<Record<string, Shape>> = {
  pores: { base: 'above', fill: dots([10, 13], [17, 18], [23, 14], [30, 17], [36, 13]) },
  'start-pores': { base: 'above', fill: dots([8, 13], [11, 17], [14, 14]) },
  'worm-holes': { base: 'section', fill: 'M21 9l1 9h1l-1-9zM26 10l-2 8h1l2-8z' },
  'crater-crack': { base: 'above', line: 'M39 15l4-3M39 15l4 3M39 15h-5M39 15l-2-4M39 15l-2 4' },
  undercut: { base: 'section', fill: 'M11 11l3 5 3-5zM31 11l3 5 3-5z' },
  'side-wall-fusion': { base: 'section', line: 'M15 13l5 9' },
  'root-fusion': { base: 'section', line: 'M24 17v7' },
  overlap: { base: 'section', fill: 'M9 12q0-4 6-5l-1 5zM39 12q0-4-6-5l1 5z' },
  'root-excess': { base: 'section', fill: 'M20 24q4 8 8 0z' },
  'suck-back': { base: 'section', fill: 'M20 24q4-7 8 0z' },
  'proud-crown': { base: 'section', fill: 'M14 12Q24-8 34 12z' },
  'fluid-puddle': { base: 'section', fill: 'M10 12q12-6 26-1 5 2 5 9-4-2-5-8z' },
  'edge-melts': { base: 'section', fill: 'M38 12q0 6 8 7v-7z' },
  'slag-inclusion': { base: 'section', fill: 'M18 15l7-1 3 2-5 2-5-1z' },
  'slag-sticks': { base: 'section', fill: 'M13 12Q24 3 35 12l-2-4Q24 0 15 8z' },
  'silica-islands': { base: 'above', fill: 'M13 14h5v2h-5zM26 16h6v2h-6z' },
  spatter: { base: 'section', fill: dots([6, 9], [10, 5], [38, 6], [43, 9], [41, 3], [15, 3]) },
  'burn-through': { base: 'section', fill: 'M19 5l2 25h6l2-25z' },
  'hot-crack': { base: 'above', line: CRACK },
  'cold-crack': { base: 'section', line: 'M35 12l-3 4 1 3-4 5' },
  'lamellar-tear': { base: 'fillet', line: 'M12 27h6l1 1h7l1-1h6' },
  'aluminium-zone': { base: 'section', line: 'M11 12l5 12M37 12l-5 12' },
  'surface-trails': { base: 'above', line: 'M10 17q5-6 10-1M24 16q6-5 12 1' },
  'aluminium-pores': { base: 'section', fill: dots([20, 14], [25, 17], [28, 12], [23, 20]) },
  'porous-cap-tig': { base: 'above', fill: dots([12, 14], [20, 16], [27, 13], [34, 17]) },
  'black-specks': { base: 'above', fill: dots([9, 14], [15, 17], [22, 13], [28, 17], [33, 14]) },
  'black-soot': { base: 'above', fill: 'M5 6q10-4 20 0t19 0v3H5zM5 23h39v3q-10 3-20 0t-19 0z' },
  'heat-tint': { base: 'above', line: 'M4 8h40M4 5h40M4 22h40M4 25h40' },
  'sugared-root': { base: 'section', line: 'M17 25q1 5 3 1t3 2 3-2 3 1 3-2' },
  'keyhole-uneven': { base: 'section', line: 'M19 25q3 6 5 1t6 2' },
  'unequal-legs': { base: 'fillet', fill: 'M26 27V9L36 27z' },
  'small-throat': { base: 'fillet', fill: 'M26 27V19q1 7 8 8z' },
  misalignment: { base: 'none', fill: 'M3 10h20v9H3zM25 14h20v9H25z' },
  distortion: { base: 'none', fill: 'M3 9l21 12 21-12v5L24 27 3 14z' },
  'arc-strike': { base: 'above', line: 'M39 5l-3 4h5l-4 5' },
  stubbing: { base: 'wire', line: 'M24 12l-3 4 5 3-2 4' },
  'burn-back': { base: 'wire', fill: dots([24, 14]) },
  'bird-nest': { base: 'none', line: 'M4 20q10-18 20-4t-8 6 6-14 14 4-8 8 6-12 12 6' },
  'arc-wander': { base: 'wire', line: 'M24 12q2 6 10 11M24 12q0 7 4 11' },
  'tungsten-wear': { base: 'tungsten', fill: dots([24, 20]) },
  'tungsten-inclusion': { base: 'section', fill: 'M22 14h3v3h-3z' },
  'electrode-sticks': { base: 'wire', line: 'M24 12v11M20 23h8' },
  'bend-fusion-line': { base: 'bend', line: 'M17 24l3-4' },
  'bend-root': { base: 'bend', line: 'M24 27v-5' },
}
const OF_GROUP: Readonly<Record<string, Shape>> = {
  porosity: { base: 'above', fill: dots([12, 14], [24, 17], [34, 13]) },
  cracks: { base: 'above', line: CRACK },
  shape: { base: 'section' },
  fusion: { base: 'section', line: 'M15 13l5 9' },
  root: { base: 'section', fill: 'M20 24q4 6 8 0z' },
  slag: { base: 'section', fill: 'M18 15l7-1 3 2-5 2-5-1z' },
  tungsten: { base: 'tungsten' },
  colour: { base: 'above' },
  arc: { base: 'wire', line: 'M24 12l-4 11M24 12l4 11' },
  feed: { base: 'wire' },
  heat: { base: 'gauge', line: 'M24 22l7-9' },
  tests: { base: 'bend' },
}
const BASES: Readonly<Record<Base, string>> = {
  section: 'M3 12H45V24H3zM14 12Q24 5 34 12M16 12l5 12M32 12l-5 12',
  above: 'M3 10H45M3 20H45M10 10q4 5 0 10M17 10q4 5 0 10M24 10q4 5 0 10M31 10q4 5 0 10M38 10q4 5 0 10',
  fillet: 'M4 27H44V30H4zM22 4H26V27H22zM26 18L35 27',
  wire: 'M18 2H30V8H26V12H22V8H18zM4 24H44V28H4z',
  tungsten: 'M21 2H27V12L24 20 21 12zM4 25H44V29H4z',
  gauge: 'M10 24A14 14 0 1 1 38 24M12 24H36',
  bend: 'M6 4V10Q6 28 24 28T42 10V4M12 4V10Q12 22 24 22T36 10V4',
  none: '',
}

/** The picture of a symptom; that of its group where it has none of its own. */
export function SymptomShape({ symptom, group }: { symptom: string; group: string }) {
  const shape = SHAPES[symptom] ?? OF_GROUP[group]
  if (!shape) return <span className="inline-block w-12 shrink-0" />
  return (
    <svg viewBox="0 0 48 32" className="h-6 w-9 shrink-0" aria-hidden="true">
      <path d={BASES[shape.base]} fill="none" stroke="var(--color-steel2)" strokeWidth="1" />
      {shape.fill && <path d={shape.fill} fill="var(--color-breach)" />}
      {shape.line && <path d={shape.line} fill="none" stroke="var(--color-breach)" strokeWidth="2" />}
    </svg>
  )
}

function dots(...centres: readonly (readonly [number, number])[]): string {
  return centres.map(([x, y]) => `M${x - 1.8} ${y}a1.8 1.8 0 1 0 3.6 0a1.8 1.8 0 1 0-3.6 0z`).join('')
}
