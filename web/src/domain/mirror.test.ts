import { expect, test } from 'vitest'

import cases from '../../../tests/welding/cases/energy.json'
import { arcEnergyKjMm, isInside } from './mirror'

test.each(cases.energies)('$voltage_v V, $current_a A, $time_s s, $length_mm mm give $kj_mm kJ/mm', (one) => {
  const got = arcEnergyKjMm(one.voltage_v, one.current_a, one.time_s, one.length_mm)
  if (one.kj_mm === null) expect(got).toBeNull()
  else expect(got).toBeCloseTo(one.kj_mm, 5)
})

test.each(cases.bands)('$value in $min to $max: $inside', (one) => {
  expect(isInside(one.value, one)).toBe(one.inside)
})
