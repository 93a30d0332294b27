import { formatter } from '@lingui/format-po'

/** @type {import('@lingui/conf').LinguiConfig} */
export default {
  sourceLocale: 'en',
  locales: ['en', 'de', 'es'],
  catalogs: [{ path: '<rootDir>/src/locales/{locale}', include: ['src'], exclude: ['**/*.test.*', 'src/testing.tsx'] }],
  format: formatter({ lineNumbers: false }),
  orderBy: 'origin',
  compileNamespace: 'ts',
  // Trans without a provider around it: the language is chosen before anything is drawn.
  runtimeConfigModule: { Trans: ['#texts', 'Trans'] },
}
