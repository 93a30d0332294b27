import { describe, expect, it } from 'vitest'

import { niceTicks, place, scaleOver } from './band'
import { differences } from './diff'
import { pathWords } from './fieldWords'
import { STOPPED, toggle, total } from './stopwatch'
import { temper } from './temper'

describe('bands', () => {
  it('hold every range with air on both sides', () => {
    const scale = scaleOver([{ min: 100, max: 200 }, null, { min: 150, max: 260 }])
    expect(scale?.min).toBeLessThan(100)
    expect(scale?.max).toBeGreaterThan(260)
    expect(scaleOver([null, undefined])).toBeNull()
  })
  it('never show a negative current', () => {
    expect(scaleOver([{ min: 1, max: 100 }])?.min).toBe(0)
  })
  it('place values, those outside at the edge', () => {
    const scale = { min: 0, max: 10 }
    expect([-5, 0, 2.5, 10, 50].map((value) => place(value, scale))).toEqual([0, 0, 0.25, 1, 1])
    expect(place(3, { min: 3, max: 3 })).toBe(0.5)
  })
  it.each([
    [2.24, 4, [0, 1, 2]],
    [1.65, 4, [0, 0.5, 1, 1.5]],
    [56.9, 4, [0, 20, 40]],
    [0, 4, [0]],
  ])('tick %s', (height, wanted, ticks) => {
    expect(niceTicks(height, wanted)).toEqual(ticks)
  })
})

describe('stopwatch', () => {
  it('adds up stretches of arc and leaves out the pauses', () => {
    let watch = toggle(STOPPED, 1000)
    expect(total(watch, 31_000)).toBe(30)
    watch = toggle(watch, 31_000)
    expect(total(watch, 99_000)).toBe(30)
    watch = toggle(toggle(watch, 100_000), 142_300)
    expect(watch.stretches).toEqual([30, 42.3])
    expect(total(watch, 0)).toBe(72.3)
  })
  it('takes a clock that was set back as no time', () => {
    expect(toggle(toggle(STOPPED, 5000), 4000).stretches).toEqual([0])
  })
})

describe('temper colours', () => {
  it('run from straw to blue and stay there', () => {
    expect([0, 0.4, 2.6, 9].map(temper)).toEqual(['#d9a93a', '#d9a93a', '#2c5f8a', '#2c5f8a'])
    expect(temper(null)).toBe('#8A969E')
    expect(temper(1.5)).not.toBe(temper(1.6))
  })
})

describe('differences of two drafts', () => {
  it('name every leaf that differs; null and absent are the same', () => {
    const mine = { title: 'a', notes: null, passes: [{ number: 1, travel_mm_min: { min: 90, max: 120 } }] }
    const theirs = { title: 'b', passes: [{ number: 1, travel_mm_min: { min: 90, max: 140 } }, { number: 2 }] }
    expect(differences(mine, theirs)).toEqual([
      { path: 'title', mine: 'a', theirs: 'b' },
      { path: 'passes.0.travel_mm_min.max', mine: '120', theirs: '140' },
      { path: 'passes.1.number', mine: '—', theirs: '2' },
    ])
  })
  it.each([
    ['passes.2.travel_mm_min.max', 'pass 3, travel speed, highest (mm/min)'],
    ['base_metals.0.thickness_mm', 'metal 1, thickness (mm)'],
    ['thermal.preheat_min_c', 'preheat (°C)'],
    ['thermal.heat_input_kj_mm.min', 'heat input, lowest (kJ/mm)'],
    ['requirements.impact.average_j', 'requirements, impact test, mean of a set (J)'],
    ['passes.0.ac.en_share', 'pass 1, AC, negative share'],
    ['passes.1.gas.components_percent.Ar', 'pass 2, shielding gas, components, Ar (%)'],
    ['joint.weld', 'joint, weld'],
    ['thermal.pwht.hold_min', 'PWHT, holding time (min)'],
  ])('%s in words', (path, words) => {
    expect(pathWords(path)).toBe(words)
  })
})
