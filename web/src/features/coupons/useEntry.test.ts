import { act, renderHook } from '@testing-library/react'
import { beforeEach, expect, it } from 'vitest'

import { useEntry } from './useEntry'

beforeEach(() => localStorage.clear())

it('keeps a value that was read after its page was left', () => {
  const page = renderHook(() => useEntry('a', 3))
  const { put } = page.result.current
  act(() => put((old) => ({ ...old, current: { min: 88, max: 88 } })))
  page.unmount()
  put((old) => ({ ...old, current: { min: 91, max: 91 } }))
  expect(renderHook(() => useEntry('a', 3)).result.current.entry.current).toEqual({ min: 91, max: 91 })
})

it('shows it on the page that was opened meanwhile, beside what is typed there', () => {
  const left = renderHook(() => useEntry('b', 1))
  const { put } = left.result.current
  left.unmount()
  const opened = renderHook(() => useEntry('b', 1))
  act(() => opened.result.current.put((old) => ({ ...old, voltage: { min: 24, max: 24 } })))
  act(() => put((old) => ({ ...old, current: { min: 91, max: 91 } })))
  expect(opened.result.current.entry).toMatchObject({ current: { min: 91, max: 91 }, voltage: { min: 24, max: 24 } })
})

it('keeps the entries of two coupons apart, and a full store loses nothing while the page is open', () => {
  const one = renderHook(() => useEntry('c', 1))
  const two = renderHook(() => useEntry('d', 5))
  const setItem = Storage.prototype.setItem
  Storage.prototype.setItem = () => {
    throw new DOMException('full')
  }
  try {
    act(() => one.result.current.put((old) => ({ ...old, lengthMm: 300 })))
  } finally {
    Storage.prototype.setItem = setItem
  }
  expect(one.result.current.entry.lengthMm).toBe(300)
  expect(two.result.current.entry).toMatchObject({ number: 5, lengthMm: null })
})
