// How well the tests of the core bite (npm run mutants -- [--seed=1] [--sample=150] [folders]): a
// seeded sample of small changes of each folder is made, one at a time, and the folder's own
// tests that reach it are run. What no test notices is listed. It takes hours, so it is no part of ./check.
import { Instrumenter } from '@stryker-mutator/instrumenter'
import { Stryker } from '@stryker-mutator/core'
import { readdirSync, readFileSync, mkdirSync, writeFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import { parseArgs } from 'node:util'
import jestConfig from '../jest.config.js'

const FOLDERS = ['analysis', 'chord', 'chart', 'reharm', 'neck', 'leading', 'melody', 'rhythm', 'practice']
/** Changes of words for players are not of interest: tests compare what matters of them. */
const EXCLUDED = ['StringLiteral']
/** The share of changes that has to be noticed. */
const GOAL = 0.8

const { values, positionals } = parseArgs({
  options: {
    seed: { type: 'string', default: '1' },
    sample: { type: 'string', default: '150' },
    /** Ends below the goal with 1; without it only the score is said. */
    hold: { type: 'boolean', default: false },
  },
  allowPositionals: true,
})
const seed = Number(values.seed)
const sample = Number(values.sample)
if (![seed, sample].every((value) => Number.isInteger(value) && value > 0)) {
  console.error('--seed and --sample are whole numbers from 1')
  process.exit(2)
}
const wrong = positionals.filter((folder) => !FOLDERS.includes(folder))
if (wrong.length > 0) {
  console.error(
    `${wrong.join(', ')}: not a folder of the core that is tried; there are ${FOLDERS.join(', ')}`,
  )
  process.exit(2)
}

const quiet = Object.fromEntries(
  ['trace', 'debug', 'info', 'warn', 'error', 'fatal'].map((level) => [level, () => undefined]),
)
const logger = { ...quiet, isDebugEnabled: () => false, isInfoEnabled: () => false }

/** Every change that can be made in a folder, always in the same order. */
async function mutantsOf(folder) {
  const files = readdirSync(join('core', folder), { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts'))
    .sort()
    .map((file) => join('core', folder, file))
    .map((name) => ({ name, content: readFileSync(name, 'utf8'), mutate: true }))
  const { mutants } = await new Instrumenter(logger).instrument(files, {
    excludedMutations: EXCLUDED,
    ignorers: [],
    plugins: null,
    mutator: { plugins: null, excludedMutations: EXCLUDED },
  })
  return mutants.filter(({ mutatorName, status }) => !EXCLUDED.includes(mutatorName) && status !== 'Ignored')
}

/** The tests that stand beside an idea are those that have to hold it. */
const testsOf = (folder) => ({ ...jestConfig, roots: [`<rootDir>/core/${folder}`], maxWorkers: 1 })

/** A seeded order (a linear congruential generator; the same on every machine). */
function shuffled(items) {
  const all = [...items]
  let state = seed
  for (let at = all.length - 1; at > 0; at -= 1) {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    const other = state % (at + 1)
    ;[all[at], all[other]] = [all[other], all[at]]
  }
  return all
}

/** As Stryker takes a place: lines and columns from 1 and 0. */
const rangeOf = ({ fileName, location: { start, end } }) =>
  `${fileName}:${start.line + 1}:${start.column}-${end.line + 1}:${end.column}`
const keyOf = ({ fileName, location: { start, end }, mutatorName, replacement }) =>
  [fileName, start.line, start.column, end.line, end.column, mutatorName, replacement].join(' ')

async function scoreOf(folder) {
  const chosen = shuffled(await mutantsOf(folder)).slice(0, sample)
  const wanted = new Set(chosen.map(keyOf))
  const results = await new Stryker({
    packageManager: 'npm',
    testRunner: 'jest',
    testRunnerNodeArgs: [],
    jest: { projectType: 'custom', config: testsOf(folder), enableFindRelatedTests: true },
    coverageAnalysis: 'perTest',
    concurrency: 2,
    mutate: [...new Set(chosen.map(rangeOf))],
    mutator: { excludedMutations: EXCLUDED },
    reporters: ['clear-text'],
    clearTextReporter: { logTests: false, reportTests: false, reportMutants: false, reportScoreTable: false },
    ignorePatterns: ['build', 'data', 'test-results', 'docs', 'e2e'],
    logLevel: 'error',
    tempDirName: '.mutants',
    inPlace: false,
  }).runMutationTest()
  // A place has several changes: only those that were drawn are counted. Results count lines and
  // columns from 1, changes from 0.
  const from0 = ({ line, column }) => ({ line: line - 1, column: column - 1 })
  const found = results.filter(({ fileName, location: { start, end }, mutatorName, replacement }) =>
    wanted.has(
      keyOf({
        fileName: relative('.', fileName),
        location: { start: from0(start), end: from0(end) },
        mutatorName,
        replacement,
      }),
    ),
  )
  if (found.length !== chosen.length)
    throw new Error(`${chosen.length} changes of core/${folder} were drawn, and ${found.length} were tried`)
  const alive = found.filter(({ status }) => status === 'Survived' || status === 'NoCoverage')
  return { folder, tried: found.length, alive }
}

const report = []
let low = false
for (const folder of positionals.length > 0 ? positionals : FOLDERS) {
  const { tried, alive } = await scoreOf(folder)
  const score = tried === 0 ? 0 : 1 - alive.length / tried
  low ||= score < GOAL
  console.log(`core/${folder}: ${(100 * score).toFixed(0)}% of ${tried} changes noticed`)
  for (const { fileName, location, mutatorName, replacement, status } of alive) {
    const place = `${relative('.', fileName)}:${location.start.line}`
    console.log(
      `  ${place} ${mutatorName} ${status}: ${String(replacement).slice(0, 90).replace(/\s+/g, ' ')}`,
    )
  }
  report.push({ folder, tried, alive: alive.length, score })
}
mkdirSync('build', { recursive: true })
writeFileSync('build/mutants.json', JSON.stringify({ seed, sample, report }, null, 2))
process.exit(values.hold && low ? 1 : 0)
