import { render, screen } from '@testing-library/react'
import { expect, it } from 'vitest'

import { PageTitle } from './PageTitle'

it.each([
  ['Library', 'Metals', 'Metals · Library · Grounded Bead'],
  ['FB-27-P03 Girder', undefined, 'FB-27-P03 Girder · Grounded Bead'],
])('heads the page %s and names the tab', (words, more, tab) => {
  render(<PageTitle words={words} {...(more ? { more } : {})} />)
  expect(screen.getByRole('heading', { level: 1 })).toHaveTextContent(words)
  expect(document.title).toBe(tab)
})
