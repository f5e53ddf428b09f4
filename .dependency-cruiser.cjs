/** Arrows point one way; see docs/decisions/0001-layout.md. */
const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  from: { path: from },
  to: { path: '^(core|library|contract|server|web|simulators|demo|e2e)/', pathNot: allowed },
})

module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    only('core-stands-alone', '^core/', '^core/'),
    only('library-stands-alone', '^library/', '^library/'),
    only('contract-needs-core-and-words-at-most', '^contract/', '^(contract|core)/|^library/src/vocabulary\\.ts$'),
    only('server-needs-contract-core-library', '^server/', '^(server|contract|core|library)/'),
    only('page-needs-contract-and-core', '^web/', '^(web|contract|core)/'),
    {
      name: 'core-in-the-page-only-where-it-computes',
      comment:
        'Computation belongs to band/ and workers/; units are converted at one edge, design/units.ts. The calendar, the compass, and the words of what grows, are for all.',
      severity: 'error',
      from: { path: '^web/src/', pathNot: '^web/src/(band|workers)/|^web/src/design/units\\.ts$' },
      to: { path: '^core/', pathNot: '^core/src/(time/|units/compass\\.ts|identity/growing\\.ts)' },
    },
    {
      name: 'core-needs-no-more-packages',
      severity: 'error',
      from: { path: '^core/src/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['npm', 'npm-dev', 'core'], pathNot: 'node_modules/(suncalc|simple-statistics|d3-array)/' },
    },
    {
      name: 'use-cases-hold-one-connection',
      comment:
        'The pools belong to what begins use cases: operations, and what the server does by itself. A service gets its one connection.',
      severity: 'error',
      from: {
        path: '^server/src/',
        pathNot: '^server/src/(database|http|worker|changes|testing)/|^server/src/main\\.ts|routes\\.ts$|\\.(test|long)\\.ts$',
      },
      to: { path: '^server/src/(database/(database|pool|failures)|http/serving)\\.ts$', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'no-sql-outside-stores',
      severity: 'error',
      from: { path: '^server/src/', pathNot: '^server/src/(database/|testing/|package/|main\\.ts)|\\.(test|long)\\.ts$' },
      to: { path: 'node_modules/mysql2' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|node_modules/\\.)' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.json'],
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
    },
    tsConfig: { fileName: 'tsconfig.base.json' },
  },
}
