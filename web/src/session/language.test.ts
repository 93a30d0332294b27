import { afterEach, expect, it, vi } from 'vitest'

afterEach(() => {
  document.cookie = 'language=; path=/; max-age=0'
  vi.resetModules()
})

async function spoken(language: string) {
  document.cookie = `language=${language}; path=/`
  return import('./language')
}

it.each([
  ['en', '0.86', '6.6–8.0', '1.5', '1.50', '12.0'],
  ['de', '0,86', '6,6–8,0', '1,5', '1,50', '12,0'],
  ['es', '0,86', '6,6–8,0', '1,5', '1,50', '12,0'],
])('writes numbers as %s does', async (language, one, range, short, long, figures) => {
  const { digits, fixed, precise } = await spoken(language)
  expect(digits('0.86')).toBe(one)
  expect(digits('6.6–8.0')).toBe(range)
  expect(digits('3/8')).toBe('3/8')
  expect([fixed(1.5, 1), fixed(1.5, 2), precise(12, 3)]).toEqual([short, long, figures])
})

it("takes the browser's own kind of the language for dates", async () => {
  vi.spyOn(navigator, 'languages', 'get').mockReturnValue(['fr', 'de-AT', 'en-GB'])
  expect((await spoken('de')).locale()).toBe('de-AT')
  vi.resetModules()
  expect((await spoken('en')).locale()).toBe('en-GB')
})
