// Who may import whom. core: nobody else. words, wire, store: core. jobs (use cases): store, core. runner: wire, jobs,
// store, core. actions: jobs, core. ui: actions, words, core. app: ui, actions, jobs, words, core. cli: jobs, words,
// wire (a person's own lane, the doctor), core. lab: core. Nobody imports lab, runner or cli.
const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  from: { path: `^src/${from}/` },
  to: { path: '^src/', pathNot: `^src/(${allowed.join('|')})/` },
})

module.exports = {
  forbidden: [
    only('core-is-pure', 'core', ['core']),
    only('words-of-core', 'words', ['words', 'core']),
    only('wire-knows-no-database', 'wire', ['wire', 'core']),
    only('store-on-core', 'store', ['store', 'core']),
    only('jobs-on-store', 'jobs', ['jobs', 'store', 'core']),
    only('runner', 'runner', ['runner', 'wire', 'jobs', 'store', 'core']),
    only('cli', 'cli', ['cli', 'jobs', 'wire', 'words', 'core']),
    only('actions', 'actions', ['actions', 'jobs', 'core']),
    only('app', 'app', ['app', 'ui', 'actions', 'jobs', 'words', 'core']),
    only('ui-talks-through-actions', 'ui', ['ui', 'actions', 'words', 'core']),
    only('lab-on-core', 'lab', ['lab', 'core']),
    {
      name: 'core-has-no-io',
      severity: 'error',
      from: { path: '^src/core/' },
      to: { dependencyTypes: ['core'] },
    },
    // Folders too: what one is about can be read without the other.
    {
      name: 'no-circles-of-folders',
      severity: 'error',
      scope: 'folder',
      from: { path: '^src/' },
      to: { circular: true },
    },
    { name: 'no-circles', severity: 'error', from: { path: '^src/' }, to: { circular: true } },
  ],
  options: {
    // Tests may meet anybody.
    exclude: { path: '\\.test\\.tsx?$' },
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.mjs', '.js', '.css'] },
  },
}
