import type { Decision } from './decisions'
import type { TuneChord, TuneReading } from './tuneReading'

/** Something of the home line that was changed. */
export interface ChangeReason {
  decision: Decision
  /** The chords of the home line it stands for. */
  homes: TuneChord[]
  /** Who decided it; empty where the colour control did. */
  byWhom: string
}

const BY_WHOM: Readonly<Record<Decision['by'], string>> = {
  control: '',
  hand: 'by hand',
  tune: 'with the whole tune',
}

/** Everything in the new line that is not the home line's, in the order of the chart. */
export const reasonsOf = ({ chords, decisions }: TuneReading): ChangeReason[] =>
  decisions
    .filter((decision) => decision.rule !== 'plain')
    .map((decision) => ({
      decision,
      homes: chords.slice(decision.index, decision.index + decision.span),
      byWhom: BY_WHOM[decision.by],
    }))
