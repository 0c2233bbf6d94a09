/** Rooms by the paths of their files. Reasons stand in docs/architecture.md. */
const ROOMS = {
  core: '^core/',
  contract: '^contract/',
  web: '^web/',
  // A few lines that every room of the server needs: where things are kept, and the log.
  house: '^server/[^/]+$',
  db: '^server/db/',
  engine: '^server/engine/',
  media: '^server/media/',
  observer: '^server/observer/',
  facts: '^server/facts/',
  derived: '^server/derived/',
  enqueue: '^server/enqueue/',
  jobs: '^server/jobs/',
  http: '^server/http/',
  bench: '^server/bench/',
  demo: '^server/demo/',
  programs: '^server/programs/',
}

const BELOW_JOBS = ['core', 'contract', 'db', 'engine', 'media', 'observer', 'facts', 'derived', 'house']
/** Who may import whom; a room may always import from itself. */
const MAY_IMPORT = {
  core: [],
  contract: ['core'],
  web: ['contract', 'core'],
  house: [],
  db: ['core', 'contract', 'house'],
  engine: ['core', 'house'],
  media: ['core', 'engine', 'db', 'house'],
  observer: ['core', 'media', 'db', 'house'],
  facts: ['core', 'contract', 'db', 'house'],
  derived: ['core', 'db', 'house'],
  enqueue: ['core', 'contract', 'db', 'house'],
  jobs: ['enqueue', ...BELOW_JOBS],
  http: ['enqueue', 'core', 'contract', 'db', 'facts', 'derived', 'media', 'house'],
  bench: BELOW_JOBS,
  demo: BELOW_JOBS,
  programs: ['http', 'jobs', 'enqueue', 'bench', 'demo', ...BELOW_JOBS],
}

/** Who may import whom, and no circle of imports, circles of types included. */
export default {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    ...Object.entries(MAY_IMPORT).map(([room, others]) => ({
      name: `room-${room}`,
      severity: 'error',
      from: { path: ROOMS[room] },
      to: {
        path: '^(core|contract|server|web|tests|scripts)/',
        pathNot: [room, ...others].map((name) => ROOMS[name]),
      },
    })),
    {
      // Pure functions on plain data: what they need is given to them.
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: ROOMS.core, pathNot: '[.]test[.]ts$' },
      to: { pathNot: ROOMS.core },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.mts', '.js', '.mjs'] },
  },
}
