import js from '@eslint/js'
import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript'
import imports from 'eslint-plugin-import-x'
import lingui from 'eslint-plugin-lingui'
import hooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

/** What each room may import from; what is not named here it may not. */
const ROOMS = {
  api: [],
  domain: ['api'],
  queries: ['api', 'domain'],
  session: ['api', 'domain', 'queries'],
  ui: ['api', 'domain', 'queries', 'session'],
  features: ['api', 'domain', 'queries', 'session', 'ui'],
}
/** Which features a feature may use: never back and forth. */
const FEATURES = {
  bead: [],
  calculators: [],
  faults: [],
  joints: [],
  production: [],
  operations: [],
  metals: ['calculators'],
  recordings: [],
  evidence: [],
  codebook: [],
  crew: [],
  dashboard: ['jobs', 'procedures'],
  jobs: [],
  people: [],
  coverage: ['evidence'],
  coupons: ['evidence', 'metals', 'recordings'],
  training: ['bead'],
  library: ['calculators', 'metals'],
  procedures: ['bead', 'coverage', 'evidence', 'metals'],
}
const all = [...Object.keys(ROOMS), 'app']
const zones = [
  ...Object.entries(ROOMS).map(([room, below]) => ({
    target: `./src/${room}/**/!(*.test).ts?(x)`,
    from: all.filter((one) => one !== room && !below.includes(one)).map((one) => `./src/${one}`),
    message: `"${room}" may import from ${below.join(', ') || 'no other room'} only.`,
  })),
  ...Object.entries(FEATURES).map(([feature, uses]) => ({
    target: `./src/features/${feature}`,
    from: Object.keys(FEATURES)
      .filter((one) => one !== feature && !uses.includes(one))
      .map((one) => `./src/features/${one}`),
    message: `"${feature}" may use ${uses.join(', ') || 'no other feature'} only.`,
  })),
]

export default tseslint.config(
  { ignores: ['dist', 'src/api/schema.d.ts'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  hooks.configs.flat['recommended-latest'],
  {
    plugins: { 'import-x': imports },
    settings: { 'import-x/resolver-next': [createTypeScriptImportResolver()] },
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      'no-console': 'error',
      'import-x/no-restricted-paths': ['error', { zones }],
      'import-x/no-cycle': ['error', { ignoreExternal: true }],
      // Without a type a button inside a form submits it.
      'no-restricted-syntax': [
        'error',
        {
          selector: 'JSXOpeningElement[name.name="button"]:not(:has(JSXAttribute[name.name="type"]))',
          message: 'Say what the button is: type="button" or type="submit".',
        },
      ],
    },
  },
  {
    // No text outside the catalogues of src/locales.
    files: ['src/**/*.ts', 'src/**/*.tsx'],
    ignores: ['**/*.test.*', 'src/testing.tsx', 'src/test-setup.ts'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    plugins: { lingui },
    rules: {
      'lingui/no-unlocalized-strings': [
        'error',
        {
          // Designations, units, paths and names of fields are no texts; nor is anything without three small letters.
          ignore: ['^(?![A-Z][a-z]{2})[^ ]*$', '^[a-z_]+([.][a-z_0-9]+)+$', '^(?!.*[a-z]{3})', '^rgba', '; path=/'],
          ignoreNames: [
            {
              regex: {
                pattern:
                  '^(key|type|id|path|to|href|d|viewBox|transform|points|queryKey|look|mark|anchor|kind|main|plain|quiet)$',
              },
            },
            { regex: { pattern: 'class|_LOOK$|EXAMPLES|LANGUAGES|GRID|COLUMNS_CLASS', flags: 'i' } },
            'style',
          ],
          ignoreFunctions: [
            ...['GET', 'POST', 'PUT', 'PATCH', 'DELETE', 'includes', 'has', 'get', 'set', 'startsWith', 'endsWith'],
            ...['querySelector', 'querySelectorAll', 'closest', 'addEventListener', 'removeEventListener'],
            ...['replaceAll', 'split', 'join', 'matchMedia', 'setRequestHeader'],
          ]
            .map((name) => `*.${name}`)
            .concat(['Error', 'TypeError', 'useRef', 'term', 'may']),
          useTsTypes: true,
        },
      ],
    },
  },
)
