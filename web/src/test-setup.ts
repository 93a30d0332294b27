import { i18n } from '@lingui/core'
import '@testing-library/jest-dom/vitest'
import { cleanup, configure } from '@testing-library/react'
import { afterEach } from 'vitest'

afterEach(cleanup)

// jsdom has no ResizeObserver; Headless UI only needs it to exist.
class NoResizeObserver {
  observe() {}
  unobserve() {}
  disconnect() {}
}
globalThis.ResizeObserver ??= NoResizeObserver

// Tests read the texts as they stand in the source.
i18n.loadAndActivate({ locale: 'en', messages: {} })

// A busy machine is no failure.
configure({ asyncUtilTimeout: 20_000 })
