/** The ideas of the core in the order of the work: each may use those before it, never those after it. */
const IDEAS = [
  'pitch',
  'chord',
  'chart',
  'analysis',
  'reharm',
  'neck',
  'voicing',
  'leading',
  'melody',
  'rhythm',
  'formats',
  'player',
  'tune',
  'practice',
  'sheet',
  'backup',
  'cli',
]

/** Arrows that the house does not have. */
module.exports = {
  forbidden: [
    { name: 'no circle', severity: 'error', from: {}, to: { circular: true } },
    ...IDEAS.map((idea, at) => ({
      name: `${idea} uses nothing later`,
      severity: 'error',
      from: { path: `^core/${idea}/`, pathNot: '\\.test\\.ts$' },
      to: { path: `^core/(${IDEAS.slice(at + 1).join('|') || 'nothing'})/` },
    })),
    {
      name: 'the core stands alone',
      severity: 'error',
      from: { path: '^core/' },
      to: { path: '^(paper|app|db|workers|server|e2e)/' },
    },
    {
      name: 'nothing below the interface knows it',
      severity: 'error',
      from: { path: '^(db|workers)/' },
      to: { path: '^app/' },
    },
    {
      name: 'paper knows the core alone',
      severity: 'error',
      from: { path: '^paper/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(app|db|workers|server|e2e)/' },
    },
    {
      name: 'no step imports another',
      severity: 'error',
      from: { path: '^app/steps/([^/]+)/' },
      to: { path: '^app/steps/([^/]+)/', pathNot: '^app/steps/$1/' },
    },
    {
      name: 'services know no step, no workspace and no page',
      severity: 'error',
      from: { path: '^app/services/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^app/(steps|workspace|routes|features)/' },
    },
    {
      name: 'steps know no workspace and no page',
      severity: 'error',
      from: { path: '^app/steps/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^app/(workspace|routes|features)/' },
    },
    {
      name: 'the workspace knows rooms, not steps',
      severity: 'error',
      from: { path: '^app/workspace/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^app/steps/[^/]+/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    exclude: { path: '(\\+types|\\.react-router|node_modules|^build/)' },
  },
}
