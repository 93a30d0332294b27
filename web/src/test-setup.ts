import '@testing-library/jest-dom/vitest'

// jsdom has no ResizeObserver; Headless UI only needs it to exist.
class NoResizeObserver {
  observe() {}
  unobserve() {}
  disconnect() {}
}
globalThis.ResizeObserver ??= NoResizeObserver
