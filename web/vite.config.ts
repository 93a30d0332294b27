import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [react(), tailwindcss()],
  server: {
    host: '127.0.0.1',
    port: 5173,
    strictPort: true,
    proxy: { '/api': 'http://127.0.0.1:8727' },
  },
  // Nothing inlined: the content security policy allows files of our own only.
  build: { assetsInlineLimit: 0, modulePreload: { polyfill: false } },
  test: { environment: 'jsdom', setupFiles: './src/test-setup.ts', css: false, restoreMocks: true },
})
