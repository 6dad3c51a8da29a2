// Imports run one way: web and server -> contracts, core, content; content -> core; core -> nothing.
const no = (name, from, to, extra = {}) => ({ name, severity: 'error', from: { path: from, ...extra }, to });

module.exports = {
  forbidden: [
    no(
      'core-imports-nothing',
      '^packages/core/src',
      { path: '^(apps|packages/(content|contracts|core/cli)|node_modules)|^@heathstep' },
      { pathNot: '\\.test\\.ts$' },
    ),
    no('core-has-no-node', '^packages/core/src', { dependencyTypes: ['core'] }, { pathNot: '\\.test\\.ts$' }),
    no('core-tests-stay-in-core', '^packages/core/src.*\\.test\\.ts$', {
      path: '^(apps|packages/(content|contracts|core/cli))',
    }),
    no('content-only-core', '^packages/content', { path: '^(apps|packages/(contracts|core/cli))' }),
    no('contracts-only-core', '^packages/contracts', { path: '^(apps|packages/(content|core/cli))' }),
    no('web-not-server', '^apps/web', { path: '^(apps/server|packages/core/cli)' }),
    no(
      'web-content-types-only',
      '^apps/web',
      { path: '^packages/content', dependencyTypesNot: ['type-only'] },
      { pathNot: '\\.test\\.ts$' },
    ),
    no('server-not-web', '^apps/server', { path: '^(apps/web|packages/core/cli)' }),
    no('no-circles', '.*', { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } }),
    no('no-places-in-parts', '^apps/web/src/parts', { path: '^apps/web/src/places' }),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|node_modules)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.cruise.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types'],
      extensions: ['.ts', '.tsx', '.js', '.mjs'],
    },
  },
};
