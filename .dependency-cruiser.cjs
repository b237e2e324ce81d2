/** What may import what: imports point one way. See docs/architecture.md. */
const core = (room, ...allowed) => ({
  name: `core-${room}`,
  comment: `core/${room} may import only ${['itself', ...allowed].join(', ')}`,
  severity: 'error',
  from: { path: `^src/core/${room}/`, pathNot: '\\.test\\.ts$' },
  to: {
    path: '^src/',
    pathNot: [
      `^src/core/${room}/`,
      '^src/core/(groups|cells|letters|csvText)\\.ts$',
      ...allowed.map((a) => (a === 'problems' ? '^src/core/problems\\.ts$' : `^src/core/${a}/`)),
    ],
  },
});

const layer = (name, from, allowed) => ({
  name,
  severity: 'error',
  from: { path: from, pathNot: '\\.test\\.tsx?$' },
  to: { path: '^(src|server|cli|e2e|bench)/', pathNot: [from, ...allowed] },
});

/** Layers of the application: which of the others each may import. */
const within = (name, ...allowed) => ({
  name: `app-${name}`,
  severity: 'error',
  from: { path: `^src/app/${name}/`, pathNot: '\\.test\\.tsx?$' },
  to: { path: '^src/app/', pathNot: [name, ...allowed].map((a) => `^src/app/${a}/`) },
});

/** Parsers of open formats, pure text in and data out, for the readers and writers in formats. */
const PARSERS = [
  'node_modules/fflate/',
  'node_modules/papaparse/',
  'node_modules/fast-xml-parser/',
  'node_modules/@types/papaparse/',
];
/** Solvers of well-known problems, pure numbers in and out. */
/** Pure packages that write PDF and read fonts. */
const WRITERS = [
  'node_modules/@cantoo/pdf-lib/',
  'node_modules/fontkit/',
  'node_modules/@types/fontkit/',
  'node_modules/bidi-js/',
  // Which file of a font has which letters.
  'node_modules/@fontsource/[\\w-]+/unicode\\.json$',
];
const SOLVERS = ['node_modules/munkres/'];

module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    core('time'),
    core('midi', 'time'),
    core('addressing', 'midi', 'time'),
    core('clock', 'midi', 'time'),
    // The contract that compile and simulate share.
    core('rig', 'addressing', 'clock', 'midi', 'time'),
    core('show', 'rig', 'addressing', 'clock', 'midi', 'time', 'problems'),
    core('meaning', 'show', 'rig', 'addressing', 'clock', 'midi', 'time', 'problems'),
    core('sound', 'meaning', 'show', 'rig', 'addressing', 'clock', 'midi', 'time', 'problems'),
    core('compile', 'meaning', 'show', 'rig', 'addressing', 'clock', 'midi', 'time', 'problems'),
    // The simulator must be able to prove the compiler wrong: it knows nothing of it, nor of what a show means.
    core('simulate', 'rig', 'addressing', 'clock', 'midi', 'time'),
    // Foot controllers: their pages, proposed, played and transferred.
    core('tonight', 'show', 'rig', 'addressing', 'clock', 'midi', 'time', 'problems'),
    core('feet', 'compile', 'simulate', 'meaning', 'show', 'rig', 'addressing', 'clock', 'midi', 'time', 'problems'),
    // What stands on paper, as data.
    core(
      'sheets',
      'tonight',
      'feet',
      'compile',
      'simulate',
      'meaning',
      'show',
      'rig',
      'addressing',
      'midi',
      'time',
      'problems',
    ),
    core(
      'checks',
      'tonight',
      'feet',
      'compile',
      'simulate',
      'meaning',
      'show',
      'rig',
      'addressing',
      'clock',
      'midi',
      'time',
      'problems',
    ),
    // Songs played with times that are drawn.
    core('nights', 'compile', 'simulate', 'meaning', 'show', 'rig', 'addressing', 'midi', 'time'),
    // A proof is a song compiled, played and checked.
    core(
      'proof',
      'tonight',
      'checks',
      'nights',
      'compile',
      'simulate',
      'meaning',
      'show',
      'rig',
      'addressing',
      'midi',
      'time',
      'problems',
    ),
    // Questions that somebody types, and what they come to.
    core('ask', 'tonight', 'compile', 'meaning', 'show', 'rig', 'addressing', 'midi', 'time', 'problems'),
    core('library', 'addressing', 'clock', 'midi', 'time'),
    core('demo', 'library', 'show', 'addressing', 'clock', 'midi', 'time'),
    core(
      'formats',
      'tonight',
      'sheets',
      'feet',
      'compile',
      'meaning',
      'show',
      'rig',
      'addressing',
      'midi',
      'time',
      'problems',
    ),
    core('testing', 'demo', 'formats', 'sheets', 'tonight', 'compile', 'meaning', 'show', 'rig', 'addressing', 'clock', 'midi', 'time'),
    {
      name: 'what-imports-nothing',
      severity: 'error',
      from: { path: '^src/core/(problems|groups|cells|letters)\\.ts$' },
      to: { path: '^src/' },
    },
    layer('wording', '^src/wording/', ['^src/core/']),
    layer('playback', '^src/playback/', ['^src/core/']),
    layer('workers', '^src/workers/', ['^src/core/', '^src/playback/', '^src/wording/']),
    layer('app', '^src/app/', [
      '^src/core/',
      '^src/playback/',
      '^src/wording/',
      '^src/workers/(protocol|showMirror|life)\\.ts$',
      '^src/workers/\\w+\\.worker\\.ts$',
    ]),
    // The application's own layers: widgets know no show and no state; screens do not know the shell around them.
    within('theme'),
    within('widgets', 'theme'),
    within('adapters'),
    within('persistence', 'adapters'),
    within('state', 'persistence', 'adapters'),
    within('chart', 'state', 'widgets', 'theme'),
    within('features', 'chart', 'state', 'adapters', 'widgets', 'theme'),
    within('shell', 'features', 'chart', 'state', 'adapters', 'widgets', 'theme'),
    within('screens', 'features', 'chart', 'state', 'adapters', 'widgets', 'theme'),
    layer('server', '^server/', ['^src/core/', '^src/wording/']),
    layer('cli', '^cli/', ['^src/core/', '^src/wording/']),
    layer('e2e', '^e2e/', []),
    {
      name: 'no-screen-imports-a-screen',
      severity: 'error',
      from: { path: '^src/app/screens/(\\w+)Screen\\.tsx$' },
      to: { path: '^src/app/screens/\\w+Screen\\.tsx$' },
    },
    {
      name: 'pure-core',
      comment: 'core has no interface, no storage, no machine in it',
      severity: 'error',
      from: { path: '^src/core/', pathNot: ['\\.test\\.ts$', '^src/core/testing/'] },
      to: {
        dependencyTypes: ['core', 'npm'],
        pathNot: ['node_modules/zod/', '^zod', ...PARSERS, ...SOLVERS, ...WRITERS],
      },
    },
    {
      name: 'test-helpers-only-in-tests',
      severity: 'error',
      from: { path: '^src/', pathNot: ['\\.test\\.tsx?$', '^src/core/testing/'] },
      to: { path: '^src/core/testing/' },
    },
    {
      name: 'no-dev-packages',
      severity: 'error',
      from: { path: '^(src|server|cli)/', pathNot: ['\\.test\\.tsx?$', '^src/core/testing/', '^cli/testing\\.ts$'] },
      to: { dependencyTypes: ['npm-dev'], pathNot: ['@types/'] },
    },
  ],
  options: {
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.js', '.mjs', '.json'] },
  },
};
