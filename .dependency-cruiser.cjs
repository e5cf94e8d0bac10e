/** The arrows run one way: routes → ui, server → core. */
const only = (name, from, to) => ({ name, severity: 'error', from: { path: from }, to: { path: to } });

module.exports = {
  forbidden: [
    {
      // Tests use real parts, the encoder among them.
      name: 'core-looks-at-nothing-above',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: { path: '^src/(server|ui|routes|workers|cli)/' },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-knows-no-framework',
      severity: 'error',
      from: { path: '^src/core/' },
      to: { path: 'node_modules/(svelte|@sveltejs|kysely|libsql|piscina|carbon-components-svelte|chart\\.js)/' },
    },
    only('ui-does-not-import-server', '^src/ui/', '^src/(server|routes|cli)/'),
    only('server-does-not-import-ui', '^src/server/', '^src/(ui|routes|cli)/'),
    only('cli-does-not-import-ui', '^src/cli/', '^src/(ui|routes)/'),
    only('workers-stay-thin', '^src/workers/', '^src/(ui|routes|cli)/'),
    {
      name: 'languages-by-their-list',
      severity: 'error',
      from: { path: '^src/', pathNot: '^src/core/language/' },
      to: { path: '^src/core/language/[a-z]+/' },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'node', 'svelte', 'default'],
      extensions: ['.ts', '.js', '.svelte'],
    },
  },
};
