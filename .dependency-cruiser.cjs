/** Which folder may import from which: web → contract → core, server → contract → core; demo and bench may use core and server. */
module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^core/' },
      to: { path: '^(contract|server|web|demo|bench|faults|e2e)/' },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-has-no-frames',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { path: 'node_modules/(react|express|better-sqlite3|zustand)' },
    },
    {
      name: 'contract-knows-core',
      severity: 'error',
      from: { path: '^contract/' },
      to: { path: '^(server|web|demo|bench|faults|e2e)/' },
    },
    {
      name: 'web-knows-no-server',
      severity: 'error',
      from: { path: '^web/' },
      to: { path: '^(server|demo|bench|faults|e2e)/' },
    },
    {
      name: 'server-knows-no-web',
      severity: 'error',
      from: { path: '^server/' },
      to: { path: '^(web|demo|bench|faults|e2e)/' },
    },
    {
      name: 'cli-knows-the-api',
      severity: 'error',
      from: { path: '^cli/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(server|web|demo|bench|faults|e2e)/' },
    },
    {
      name: 'bench-knows-core-and-server',
      severity: 'error',
      from: { path: '^(bench|faults)/' },
      to: { path: '^(web|e2e)/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types', 'default'] },
  },
};
