/** Who may import whom: lower never names higher, and no two files name each other. */
module.exports = {
  forbidden: [
    { name: 'no-circle', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'model-knows-no-screen',
      severity: 'error',
      from: { path: '^src/(model|api)/' },
      to: { path: '^src/(features|steps|app)/' },
    },
    {
      name: 'features-know-no-application',
      severity: 'error',
      from: { path: '^src/features/' },
      to: { path: '^src/(steps|app)/' },
    },
    {
      name: 'steps-know-no-application',
      severity: 'error',
      from: { path: '^src/steps/' },
      to: { path: '^src/app/' },
    },
    {
      name: 'nothing-left-over',
      severity: 'error',
      from: { orphan: true, pathNot: '(\\.test\\.tsx?|\\.d\\.ts|src/main\\.tsx)$' },
      to: {},
    },
    {
      name: 'found',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, pathNot: '\\.css$' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
    },
  },
}
