import { expect, it } from 'vitest'

import type { Units } from '../session/units'
import { tensileText } from './tensileText'

const units = (system: 'si' | 'us') =>
  ({
    system,
    value: (mpa: number) => (system === 'si' ? String(mpa) : (mpa / 6.894757).toFixed(1)),
  }) as unknown as Units

it.each([
  [{ tensile_mpa: 490, tensile_ksi: 70 }, 'us', '70'],
  [{ tensile_mpa: 490, tensile_ksi: 70 }, 'si', '490'],
  [{ tensile_mpa: 500, tensile_ksi: null }, 'us', '72.5'],
  [{ tensile_mpa: null, tensile_ksi: null }, 'us', ''],
  [{}, 'si', ''],
] as const)('%j in %s reads %s', (filler, system, written) => {
  expect(tensileText(filler, units(system))).toBe(written)
})
