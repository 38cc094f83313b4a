import { killRounds } from '../e2e/killServer'

/** `npm run kills 1000`: the built server killed so often at random moments under edits. */
const rounds = Number(process.argv[3] ?? 100)
if (!Number.isInteger(rounds) || rounds < 1)
  throw new Error('A number of rounds is needed: npm run kills 1000')
const TOLD_EVERY = 25
const { acknowledged, lost, broken, slowestBackMs } = await killRounds(rounds, Math.random, (done) => {
  if (done.rounds % TOLD_EVERY === 0)
    process.stderr.write(
      `${done.rounds} rounds, ${done.acknowledged} edits acknowledged, ${done.lost} lost\n`,
    )
})
process.stdout.write(
  `${rounds} rounds: ${acknowledged} edits acknowledged, ${lost} lost; integrity ${broken.length === 0 ? 'ok' : broken.join('; ')}; back after at most ${Math.round(slowestBackMs)} ms\n`,
)
process.exitCode = lost > 0 || broken.length > 0 ? 1 : 0
