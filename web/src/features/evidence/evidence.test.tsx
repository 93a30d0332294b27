import { fireEvent, render, screen } from '@testing-library/react'
import { expect, test, vi } from 'vitest'

import type { Kind } from '../../api/types'
import { ListField } from './ListField'
import { FIELDS, KIND_WORDS } from './fields'
import { readBlanks, readNumbers, writeBlanks, writeNumbers } from './numbers'

const GAP = {
  name: 'gap',
  unit: 'mm',
  us_unit: 'in',
  us_scale: 1 / 25.4,
  us_offset: 0,
  decimals: 2,
  us_decimals: 3,
  us_fraction: 0,
  us_fraction_from: 0,
} as Kind

test.each([
  ['1.2; 0.5', [1.2, 0.5]],
  ['1,2; 0,5', [1.2, 0.5]],
  ['1.2 0.5', [1.2, 0.5]],
  ['1.2, 0.5', [1.2, 0.5]],
  ['4,2', [4.2]],
  ['none', []],
  ['0', []],
  ['1.2 and more', null],
])('%s is read as a list', (text, values) => {
  expect(readNumbers(text, GAP, 'si')).toEqual(values)
})

test('fractions of an inch are read in inches', () => {
  expect(readNumbers('1/8; 1/16', GAP, 'us')?.map((value) => Number(value.toFixed(4)))).toEqual([3.175, 1.5875])
  expect(writeNumbers([3.175], GAP, 'us')).toBe('0.125')
})

test('a value that is still missing stays a blank', () => {
  expect(readBlanks('61; -; 70')).toEqual([61, null, 70])
  expect(readBlanks('61; ; 70')).toEqual([61, null, 70])
  expect(readBlanks('61; x')).toBeNull()
  expect(writeBlanks([61, null, 70])).toBe('61; –; 70')
})

function openings(written: string) {
  const onChange = vi.fn()
  render(
    <ListField
      label="openings"
      written={written}
      hint="1.2; 0.5"
      unit="mm"
      path="openings_mm"
      read={(text) => readNumbers(text, GAP, 'si')}
      onChange={onChange}
    />,
  )
  return { field: screen.getByLabelText('openings'), onChange }
}

test('none is an empty list: somebody looked, and nothing opened', () => {
  const { field, onChange } = openings('')
  fireEvent.change(field, { target: { value: 'none' } })
  fireEvent.blur(field)
  expect(onChange).toHaveBeenLastCalledWith([])
})

test('emptying a field takes its answer back', () => {
  const { field, onChange } = openings('none')
  fireEvent.change(field, { target: { value: '' } })
  fireEvent.blur(field)
  expect(onChange).toHaveBeenLastCalledWith(null)
})

test('what is not understood stays in the field and is named', () => {
  const { field, onChange } = openings('')
  fireEvent.change(field, { target: { value: 'big' } })
  fireEvent.blur(field)
  expect(field).toHaveValue('big')
  expect(screen.getByRole('alert')).toHaveTextContent('semicolons')
  expect(onChange).not.toHaveBeenCalled()
  fireEvent.keyDown(field, { key: 'Escape' })
  expect(field).toHaveValue('')
})

test('every kind of test has its fields and its words', () => {
  expect(Object.keys(FIELDS).sort()).toEqual(Object.keys(KIND_WORDS).sort())
  for (const fields of Object.values(FIELDS)) expect(new Set(fields.map((one) => one.name)).size).toBe(fields.length)
})
