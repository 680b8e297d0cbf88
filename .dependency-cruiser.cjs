/** Imports run downward only: web, server, standins → contract → core. */
const forbid = (name, from, to, comment) => ({
  name,
  severity: 'error',
  comment,
  from: { path: from },
  to: { path: to },
})

module.exports = {
  forbidden: [
    forbid(
      'core-is-the-bottom',
      '^core/',
      '^(contract|server|web|standins|e2e)/',
      'core knows nothing above it',
    ),
    forbid(
      'contract-above-core-only',
      '^contract/',
      '^(server|web|standins|e2e)/',
      'contract knows core only',
    ),
    forbid(
      'server-apart',
      '^server/',
      '^(web|standins|e2e)/',
      'the server does not know its clients',
    ),
    forbid(
      'web-apart',
      '^web/',
      '^(server|standins|e2e)/',
      'the web knows the server through the contract',
    ),
    forbid(
      'standins-apart',
      '^standins/',
      '^(server|web|contract|e2e)/',
      'a stand-in plays the outside world',
    ),
    forbid(
      'launcher-apart',
      '^launcher/',
      '^(core|contract|server|web|standins|e2e)/',
      'the launcher runs before anything is built: it starts programs',
    ),
    forbid(
      'nothing-launched-knows-the-launcher',
      '^(core|contract|server|web|standins)/',
      '^launcher/',
      'what is started does not know by what',
    ),
    forbid(
      'thin-http',
      '^server/store/',
      '^server/(http|service)/',
      'store is the lowest layer of the server',
    ),
    forbid('service-under-http', '^server/service/', '^server/http/', 'use cases do not know HTTP'),
    {
      name: 'core-is-pure',
      severity: 'error',
      comment: 'core uses no Node, no DOM and no I/O',
      from: { path: '^core/', pathNot: ['\\.test\\.ts$', '^core/testing/'] },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'through-the-door',
      severity: 'error',
      comment: 'a core folder is entered through its index.ts',
      from: { path: '^core/([^/]+)/' },
      to: {
        path: '^core/([^/]+)/',
        pathNot: ['^core/$1/', '^core/.+/index\\.ts$', '^core/testing/'],
      },
    },
    {
      name: 'views-apart',
      severity: 'error',
      comment: 'a view knows no other view: what two share is a part, a store or a composable',
      from: { path: '^web/src/views/([^/]+)/' },
      to: { path: '^web/src/views/([^/]+)/', pathNot: '^web/src/views/$1/' },
    },
    forbid(
      'views-on-top',
      '^web/src/(parts|stores|composables|gauge|api|workers|theme)/',
      '^web/src/(views|shell)/',
      'parts and stores do not know where they are shown',
    ),
    forbid(
      'stores-show-nothing',
      '^web/src/(stores|gauge|api|workers)/',
      '^web/src/parts/',
      'what is kept and sent is not what is shown',
    ),
    forbid(
      'stations-on-the-bench',
      '^web/src/views/visit/bench/',
      '^web/src/views/visit/(guide|prepare|safe|fieldtest)/',
      'what the stations share knows none of them',
    ),
    forbid(
      'guide-above-its-stations',
      '^web/src/views/visit/(prepare|safe|fieldtest)/',
      '^web/src/views/visit/guide/',
      'a guide shows the stations it leads through, and not the other way',
    ),
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|node_modules)/' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
    },
    tsConfig: { fileName: 'tsconfig.base.json' },
  },
}
