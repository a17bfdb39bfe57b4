/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    {
      name: 'core-stands-alone',
      severity: 'error',
      comment: 'core imports itself and yup: no web, no other package, no Node module',
      from: { path: '^core/src' },
      to: { pathNot: '^(core/src|node_modules/yup/)' },
    },
    {
      name: 'yup-only-at-the-door',
      severity: 'error',
      comment: 'within the core only the record room checks what comes from outside',
      from: { path: '^core/src/(?!record/)' },
      to: { path: '^node_modules/yup/' },
    },
    ...rooms([
      'quantity',
      'numeric',
      'circuit',
      'waveform',
      'curves',
      'handbook',
      'instruments',
      'checks',
      'machines',
      'vehicle',
      'practice',
      'belief',
      'advice',
      'blame',
      'verdict',
      'shelf',
      'limits',
      'record',
      'assess',
    ]),
    {
      name: 'browser-not-server',
      severity: 'error',
      from: { path: '^web/src/lib/(?!server)' },
      to: { path: '^web/src/lib/server' },
    },
    {
      name: 'no-circular',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'not-to-unresolvable',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, pathNot: '^([$]|[.]/[$]types|pdfmake/)' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '^web/(build|[.]svelte-kit)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: require('node:path').resolve(__dirname, 'web/tsconfig.json') },
    webpackConfig: { fileName: 'depcruise.aliases.cjs' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'svelte', 'types', 'default', 'node'],
      extensions: ['.ts', '.js', '.mjs', '.svelte', '.json'],
    },
  },
};

/** The core's rooms in order: each imports only those before it, and those only through their index. */
function rooms(names) {
  return names.flatMap((name, i) => [
    {
      name: `${name}-imports-downward`,
      severity: 'error',
      from: { path: `^core/src/${name}/` },
      to: { path: `^core/src/(${names.slice(i + 1).join('|') || '-'})/` },
    },
    {
      name: `into-${name}-by-its-index`,
      severity: 'error',
      from: { path: '^core/src/', pathNot: `^core/src/${name}/` },
      to: { path: `^core/src/${name}/`, pathNot: `^core/src/${name}/index[.]ts$` },
    },
  ]);
}
