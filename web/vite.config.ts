import { transformAsync } from '@babel/core'
import { lingui } from '@lingui/vite-plugin'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import type { Plugin } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'
import { defineConfig } from 'vitest/config'

/** Texts marked by t, plural and Trans become look-ups in the catalogue of the language. */
const texts = (): Plugin => ({
  name: 'texts',
  enforce: 'pre',
  async transform(code, id) {
    if (!/\/src\/.*\.tsx?(\?|$)/.test(id) || !code.includes('/macro')) return null
    const made = await transformAsync(code, {
      filename: id,
      configFile: false,
      babelrc: false,
      sourceMaps: true,
      parserOpts: { plugins: ['typescript', 'jsx'] },
      plugins: ['@lingui/babel-plugin-lingui-macro'],
    })
    return made?.code ? { code: made.code, map: made.map ?? null } : null
  },
})

/** Counts which statements run in a browser; the content security policy forbids the usual way to the global. */
const counted = (): Plugin => ({
  name: 'counted',
  enforce: 'pre',
  async transform(code, id) {
    if (!/\/src\/.*\.tsx?(\?|$)/.test(id)) return null
    const made = await transformAsync(code, {
      filename: id,
      configFile: false,
      babelrc: false,
      sourceMaps: true,
      parserOpts: { plugins: ['typescript', 'jsx'] },
      plugins: [['babel-plugin-istanbul', { coverageGlobalScope: 'window', coverageGlobalScopeFunc: false }]],
    })
    return made?.code ? { code: made.code, map: made.map ?? null } : null
  },
})

// ./bead test coverage builds the screen once more, elsewhere, with its statements counted.
const measured = process.env.BEAD_MEASURED_DIST

/** The shape of what the server answers: what was kept on a device in another shape is not read again. */
const shape = createHash('sha256').update(readFileSync('src/api/schema.d.ts')).digest('hex').slice(0, 12)

/** The program as an application of the device, which opens without a network. */
const installable = () =>
  VitePWA({
    strategies: 'injectManifest',
    srcDir: 'src',
    filename: 'sw.ts',
    injectRegister: false,
    includeManifestIcons: false,
    injectManifest: {
      globPatterns: ['index.html', 'icon.svg', 'assets/*.{js,css}', 'fonts/*.woff2'],
      maximumFileSizeToCacheInBytes: 5e6,
    },
    manifest: {
      id: '/',
      name: 'Grounded Bead',
      short_name: 'Bead',
      description: 'Welding procedures: drafted, qualified, logged and released.',
      start_url: '/',
      display: 'standalone',
      background_color: '#FAF8F3',
      theme_color: '#0F5C63',
      icons: [
        { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
        { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
        { src: '/icon-maskable-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
      ],
    },
  })

export default defineConfig({
  plugins: [...(measured ? [counted()] : []), texts(), react(), lingui(), tailwindcss(), installable()],
  define: { __SHAPE__: JSON.stringify(shape) },
  server: {
    host: '127.0.0.1',
    port: 5173,
    strictPort: true,
    proxy: { '/api': 'http://127.0.0.1:8727' },
  },
  // Nothing inlined: the content security policy allows files of our own only.
  build: { assetsInlineLimit: 0, modulePreload: { polyfill: false }, outDir: measured ?? 'dist', emptyOutDir: true },
  // A busy machine is no failure: nothing here is judged by the clock.
  test: {
    environment: 'jsdom',
    setupFiles: './src/test-setup.ts',
    css: false,
    restoreMocks: true,
    testTimeout: 60_000,
    coverage: { provider: 'istanbul', include: ['src/**/*.{ts,tsx}'], reporter: ['json'] },
  },
})
