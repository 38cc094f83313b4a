import Button from '@mui/material/Button'
import FormControlLabel from '@mui/material/FormControlLabel'
import Slider from '@mui/material/Slider'
import Switch from '@mui/material/Switch'
import { useMemo, useState } from 'react'
import type { Way } from '../../../workers/searchQuestions'
import { placeName } from '../../../core/chart/chart'
import { chord } from '../../../core/chord/parse'
import { GUARD_NAMES, GUARDS, isOn, type GuardName, type Guards } from '../../../core/reharm/guards'
import { tuneFarInFull, tuneFarInWords } from '../../../core/reharm/howFar'
import { isColour } from '../../../core/reharm/rules'
import { ChordName } from '../../services/notation/ChordName'
import { engravedWords } from '../../../core/chord/engraved'
import { SearchProgress } from '../../services/room/SearchProgress'
import { usePlayerSettings } from '../../services/player/PlayerContext'
import { type TuneDocument } from '../../../core/tune/document'
import { homeIndexAt } from '../../../core/tune/following'
import { decisionsOf, tuneFarGone } from '../../../core/tune/decisions'
import type { TuneReading } from '../../../core/tune/reading'
import type { WaysQuestion } from '../../../workers/searchQuestions'
import { useWays } from './useWays'
import { decidedByHand } from '../../../core/tune/edits/colour'
import type { TuneEdit } from '../../../core/tune/edit'

/** Different ways looked for at one distance. */
const WAYS_WANTED = 3
const HALF_WAY = 0.5
/** A passage is named that goes so much farther than the whole. */
const MUCH_FARTHER = 0.15
const clashesOf = ({ faults }: Way): number => faults.filter(({ what }) => what === 'melody clash').length
/** Changes named on a card; the new line shows them all. */
const NAMED = 3
const STOPS = [
  { value: 0, label: 'Plain' },
  { value: 0.25, label: '' },
  { value: 0.5, label: 'Half way' },
  { value: 0.75, label: '' },
  { value: 1, label: 'Far out' },
]

/** What each guard keeps, as the switch says it; its reason is the title. */
const GUARD_LABELS: Readonly<Record<GuardName, string>> = {
  home: 'Begins and ends at home',
  'way home': 'A way home before the end',
  form: 'The form’s own chords',
  'written bass': 'Written bass stays',
  moving: 'What moves goes on moving',
  melody: 'Nothing sour under the melody',
}

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

/** Other chords for the whole tune or a stretch of it, chosen together at a wanted distance; what was decided by hand stays. */
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
  const slots = useMemo(() => chords.map(({ slot }) => slot), [chords])
  const isInside = (place: string) => {
    const at = homeIndexAt(slots, place)
    return at >= from && at <= to
  }
  const byTune = Object.entries(choices).filter(([, one]) => one.by === 'tune')
  const byOthers = Object.fromEntries(Object.entries(choices).filter(([, one]) => one.by !== 'tune'))
  /** A way through a stretch leaves what an earlier one put elsewhere. */
  const choicesOf = (way: Way, at: number): TuneDocument['choices'] =>
    Object.fromEntries([
      ...byTune.filter(([place]) => !isInside(place)),
      ...way.changes.map(
        ({ index, span, chords: put, rule, why }) =>
          [chords[index]!.key, { chords: put, span, rule, at, by: 'tune' as const, why }] as const,
      ),
    ])
  const isTaken = (way: Way) => {
    const here = byTune.filter(([place]) => isInside(place))
    return (
      here.length === way.changes.length &&
      way.changes.every(
        ({ index, chords: put }) =>
          JSON.stringify(choices[chords[index]!.key]?.chords) === JSON.stringify(put),
      )
    )
  }
  const { chart, analysis } = reading
  /** How far the tune goes, or the stretch, once the way is taken: the same number that a version kept then has. */
  const farOf = (way: Way) =>
    tuneFarGone(
      chart,
      analysis,
      decisionsOf(chart, analysis, {
        colour: document.colour,
        choices: { ...byOthers, ...choicesOf(way, 0) },
      }),
      from,
      to,
    )
  const where = stretch
    ? `${placeName(chords[from]!.slot)} to ${placeName(chords[to]!.slot)}`
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
      {distance > 0 && (
        <details className="guards">
          <summary>
            The tune stays recognisable:{' '}
            {GUARD_NAMES.every((name) => isOn(guards, name))
              ? 'all of it'
              : `${GUARD_NAMES.filter((name) => isOn(guards, name)).length} of ${GUARD_NAMES.length} kept`}
          </summary>
          {GUARD_NAMES.map((name) => (
            <FormControlLabel
              key={name}
              title={GUARDS[name]}
              control={
                <Switch
                  size="small"
                  checked={isOn(guards, name)}
                  onChange={(_, on) => setGuards({ ...guards, [name]: on })}
                />
              }
              label={GUARD_LABELS[name]}
            />
          ))}
        </details>
      )}
      {distance > 0 && (
        <div className="line-cards" role="radiogroup" aria-label="Ways found">
          {ways.map((way, at) => (
            <div key={at} className="way-card">
              <button
                type="button"
                role="radio"
                aria-checked={isTaken(way)}
                className="line-card"
                onClick={() => {
                  onBesideWay(null)
                  onEdit({
                    kind: 'way',
                    choices: choicesOf(way, Date.now()),
                    did: `way ${at + 1}, ${tuneFarInWords(farOf(way))}`,
                  })
                }}
              >
                <b>Way {at + 1}</b>
                <span>{tuneFarInFull(farOf(way))}</span>
                {way.idea && <span className="way-idea">{way.idea}</span>}
                <span>{engravedWords(way.says)}</span>
                {!way.reached && <span>as far as the rules reach here</span>}
                {way.farthest && way.farthest.far > way.distance + MUCH_FARTHER && (
                  <span>
                    {tuneFarInWords(way.farthest.far)} in bars {way.farthest.from} to {way.farthest.to}
                  </span>
                )}
                {clashesOf(way) > 0 && (
                  <span className="fault">
                    {clashesOf(way) === 1 ? 'one place clashes' : `${clashesOf(way)} places clash`} with the
                    melody
                  </span>
                )}
                <span>
                  {way.changes.length} {way.changes.length === 1 ? 'change' : 'changes'}
                </span>
                <span className="way-chords">
                  {way.changes
                    .filter((one) => !isColour(one.rule))
                    .slice(0, NAMED)
                    .map((one) => (
                      <span key={one.index}>
                        {one.chords.slice(0, 2).map(({ symbol }, place) => (
                          <ChordName key={place} chord={chord(symbol)} />
                        ))}{' '}
                        <small>{engravedWords(one.name)}</small>
                      </span>
                    ))}
                </span>
              </button>
              <Button
                size="small"
                aria-pressed={beside === `Way ${at + 1}`}
                onClick={() =>
                  onBesideWay(
                    beside === `Way ${at + 1}`
                      ? null
                      : {
                          name: `Way ${at + 1}`,
                          choices: { ...byOthers, ...choicesOf(way, 0) },
                        },
                  )
                }
              >
                {beside === `Way ${at + 1}` ? 'Hide' : 'Show beside and hear'}
              </Button>
            </div>
          ))}
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
        <div className="lines-state" role="status" aria-label="Search">
          {state.kind === 'searching' && (
            <>
              <SearchProgress howFar={state.howFar} label="Search for ways" />
              <span>Looking for ways</span>
              <Button size="small" onClick={stop}>
                Stop
              </Button>
            </>
          )}
          {state.kind === 'stopped' && 'Stopped; what was found stays. Move the slider to look again.'}
          {state.kind === 'fault' && <span className="fault">{state.message}</span>}
          {state.kind === 'found' &&
            ways.length > 0 &&
            ways.length < WAYS_WANTED &&
            `There ${ways.length === 1 ? 'is' : 'are'} no more than ${ways.length} unlike each other at this distance.`}
          {state.kind === 'found' && ways.length === 0 && (none ?? 'Nothing can be changed here.')}
          {byTune.length > 0 && (
            <Button
              size="small"
              onClick={() => {
                onEdit({ kind: 'way', choices: {}, did: 'plain chords back' })
                setDistance(0)
              }}
            >
              Put the plain chords back
            </Button>
          )}
        </div>
      )}
    </div>
  )
}
