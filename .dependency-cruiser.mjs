// Which file may import which; `npm run lint` holds it. Types count as much as values.

/** What is known of each tool before it is used lies lower than what it does. */
const FACTS_OF_TOOLS = 'tools/(?:tools?|[^/]+/facts)\\.ts$';
/** Folders of the browser's half, lowest first: each may import from itself and from those above it in this list. */
const LEVELS = [
  ['words'],
  ['api', 'store', 'secure', FACTS_OF_TOOLS],
  ['live', 'pictures', 'ui'],
  ['canvas'],
  ['desk'],
  ['screen', 'tools/(?!(?:tools?|[^/]+/facts)\\.ts$)'],
  ['room'],
  ['exercises', 'handout', 'media', 'people'],
  ['material', 'sharing', 'stage'],
  ['replay', 'shelf'],
  ['film'],
  ['packed'],
  ['answering'],
  [
    'asking',
    'explain',
    'focus',
    'ideaMap',
    'ideas',
    'instruments',
    'pages',
    'selection',
    'sittings',
    'talk',
    'typing',
  ],
  ['plotting', 'present', 'reach', 'roster'],
  ['classroom'],
  ['devices', 'installation', 'lessons', 'school', 'shared'],
  ['app'],
];

const within = (folders) =>
  `^web/src/(${folders.map((folder) => (folder.includes('/') ? folder : `${folder}/`)).join('|')})`;

const directions = LEVELS.map((folders, level) => ({
  name: `direction-of-${folders.map((folder) => folder.replace(/\W+.*/, '')).join('-')}`,
  comment: `The folders ${folders.join(', ')} know nothing of each other, nor of those that build on them (LEVELS in .dependency-cruiser.mjs).`,
  severity: 'error',
  from: { path: within(folders) },
  to: {
    path: within(LEVELS.slice(level).flat()),
    pathNot: ['^web/src/$1', ...(folders.includes(FACTS_OF_TOOLS) ? [within([FACTS_OF_TOOLS])] : [])],
  },
}));

export default {
  forbidden: [
    {
      name: 'no-circle',
      comment: 'Files that import each other cannot be read, tested or moved one at a time.',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'folder-without-level',
      comment: 'A new folder of the browser’s half has a place in LEVELS of .dependency-cruiser.mjs.',
      severity: 'error',
      from: { path: '^web/src/[^/]+/', pathNot: within(LEVELS.flat()) },
      to: {},
    },
    ...directions,
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|dist-types|node_modules)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      conditionNames: ['source', 'import', 'types', 'default'],
      extensions: ['.ts', '.tsx', '.js'],
    },
  },
};
