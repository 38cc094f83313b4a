import { itemAt } from '../../../core/lists'
import FormControlLabel from '@mui/material/FormControlLabel'
import Slider from '@mui/material/Slider'
import Switch from '@mui/material/Switch'
import { useMemo, useState } from 'react'
import { placeName } from '../../../core/chart/chart'
import type { Guards } from '../../../core/reharm/guards'
import { tuneFarInFull, tuneFarInWords } from '../../../core/reharm/howFar'
import type { TuneDocument } from '../../../core/tune/document'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import { decidedByHand } from '../../../core/tune/edits/colourEdits'
import type { TuneReading } from '../../../core/tune/tuneReading'
import type { WaysQuestion } from '../../../workers/searchQuestions'
import { usePlayerSettings } from '../../services/player/PlayerContext'
import { GuardSwitches } from './GuardSwitches'
import { useWayChoices } from './useWayChoices'
import { useWays } from './useWays'
import { WayCard } from './WayCard'
import { WAYS_WANTED, WaysState } from './WaysState'

const HALF_WAY = 0.5
const STOPS = [
  { value: 0, label: 'Plain' },
  { value: 0.25, label: '' },
  { value: 0.5, label: 'Half way' },
  { value: 0.75, label: '' },
  { value: 1, label: 'Far out' },
]

interface Props {
  document: TuneDocument
  reading: Pick<TuneReading, 'chart' | 'analysis' | 'chords'>
  /** Only this stretch, by the indexes of its first and last chord; null for the whole tune. */
  stretch: readonly [number, number] | null
  joint: JointBody
  onEdit: (edit: TuneEdit) => void
  /** What is shown beside the new line, by name. */
  beside: string | null
  onBesideWay: (way: WayBeside | null) => void
}

/** A way shown beside the new line before it is taken. */
export interface WayBeside extends Pick<TuneDocument, 'choices'> {
  name: string
}

export type JointBody = NonNullable<WaysQuestion['joint']>

/**
 * Other chords for the whole tune or a stretch of it, chosen together at a wanted distance; what
 * was decided by hand stays.
 */
export function FarControl({ document, reading, stretch, joint, onEdit, beside, onBesideWay }: Props) {
  const { chords } = reading
  const [distance, setDistance] = useState(0)
  const [together, setTogether] = useState(false)
  const [guards, setGuards] = useState<Guards>({})
  const {
    settings: { taste },
    liking,
  } = usePlayerSettings()
  const { text, choices, fixed, melody } = document
  const byHand = useMemo(() => decidedByHand({ text, choices, fixed }), [text, choices, fixed])
  const [from, to] = stretch ?? [0, chords.length - 1]
  const keep = useMemo(
    () =>
      chords.filter(({ index }) => byHand.has(index) || index < from || index > to).map(({ index }) => index),
    [chords, byHand, from, to],
  )
  const asked = { text, keep, taste, liking, melody, guards }
  const { ways, none, state, stop } = useWays(
    distance > 0
      ? { ...asked, distances: [distance], count: WAYS_WANTED, joint: together ? joint : null }
      : null,
    { ...asked, distances: [HALF_WAY], count: 0, joint: null },
  )
  const { byTune, byOthers, choicesOf, isTaken, farOf } = useWayChoices(document, reading, [from, to])
  const where = stretch
    ? `${placeName(itemAt(chords, from).slot)} to ${placeName(itemAt(chords, to).slot)}`
    : 'the whole tune'
  return (
    <div className="far-control">
      <div className="colour-control">
        <span id="far-label">Other chords for {where}: take me this far</span>
        <Slider
          aria-labelledby="far-label"
          value={distance}
          min={0}
          max={1}
          step={0.05}
          marks={STOPS}
          getAriaValueText={tuneFarInFull}
          onChange={(_, next) => {
            onBesideWay(null)
            setDistance(next as number)
          }}
        />
        {distance > 0 && (
          <FormControlLabel
            control={<Switch size="small" checked={together} onChange={(_, next) => setTogether(next)} />}
            label="Chosen together with the grips: slower, smoother; weighs 7 changes and 14 grips a chord"
          />
        )}
      </div>
      {distance > 0 && <GuardSwitches guards={guards} onGuards={setGuards} />}
      {distance > 0 && (
        <div className="line-cards" role="radiogroup" aria-label="Ways found">
          {ways.map((way, at) => {
            const name = `Way ${at + 1}`
            const isBeside = beside === name
            return (
              <WayCard
                key={name}
                way={way}
                name={name}
                far={farOf(way)}
                taken={isTaken(way)}
                beside={isBeside}
                onTake={() => {
                  onBesideWay(null)
                  onEdit({
                    kind: 'way',
                    choices: choicesOf(way, Date.now()),
                    did: `way ${at + 1}, ${tuneFarInWords(farOf(way))}`,
                  })
                }}
                onBeside={() =>
                  onBesideWay(isBeside ? null : { name, choices: { ...byOthers, ...choicesOf(way, 0) } })
                }
              />
            )
          })}
        </div>
      )}
      {ways.length > 0 && (document.colour > 0 || byHand.size > 0) && (
        <p className="quiet">
          How far each goes is said of the tune as it then is:{' '}
          {[
            ...(document.colour > 0 ? ['its colours'] : []),
            ...(byHand.size > 0 ? ['what you chose by hand'] : []),
          ].join(' and ')}{' '}
          {document.colour > 0 || byHand.size !== 1 ? 'are' : 'is'} counted.
        </p>
      )}
      {(state.kind !== 'none' || byTune.length > 0) && (
        <WaysState
          state={state}
          found={ways.length}
          none={none}
          onStop={stop}
          onPlain={
            byTune.length > 0
              ? () => {
                  onEdit({ kind: 'way', choices: {}, did: 'plain chords back' })
                  setDistance(0)
                }
              : null
          }
        />
      )}
    </div>
  )
}
