import Button from '@mui/material/Button'
import LinearProgress from '@mui/material/LinearProgress'
import Slider from '@mui/material/Slider'
import { useMemo, useState } from 'react'
import type { Way } from '../../../workers/messages'
import { chord } from '../../../core/chord/parse'
import { ChordName, engravedWords } from '../notation/ChordName'
import { decidedByHand, type TuneDocument, type TuneEdit } from '../tune/document'
import type { TuneChord } from '../workspace/useTuneReading'
import { useWays } from './useWays'

/** Different ways looked for at one distance. */
const WAYS_WANTED = 3
/** Changes named on a card; the new line shows them all. */
const NAMED = 3
const STOPS = [{ value: 0, label: 'Plain' }, { value: 0.25, label: '' }, { value: 0.5, label: 'Half way' }, { value: 0.75, label: '' }, { value: 1, label: 'Far out' }]

interface Props {
  document: TuneDocument
  chords: readonly TuneChord[]
  onEdit: (edit: TuneEdit) => void
  /** Leads to the page with every change and its reason. */
  onReasons: () => void
}

/** Other chords for the whole tune, chosen together at a wanted distance; what was decided by hand stays. */
export function FarControl({ document, chords, onEdit, onReasons }: Props) {
  const [distance, setDistance] = useState(0)
  const { text, choices, fixed } = document
  const byHand = useMemo(() => decidedByHand({ choices, fixed }), [choices, fixed])
  const keep = useMemo(() => chords.filter((one) => byHand.has(one.key)).map((one) => one.index), [chords, byHand])
  const { ways, state, stop } = useWays(distance > 0 ? { text, distance, keep, count: WAYS_WANTED } : null)
  const changed = chords.some((one) => one.made && one.made.rule !== 'plain')
  const taken = Object.values(choices).some((choice) => choice.by === 'tune')
  const choicesOf = (way: Way): TuneDocument['choices'] => Object.fromEntries(way.chords.map(({ index, symbol, rule }) => [chords[index]!.key, { symbol, rule }]))
  const isTaken = (way: Way) => {
    const wanted = choicesOf(way)
    const now = Object.entries(choices).filter(([, choice]) => choice.by === 'tune')
    return now.length === Object.keys(wanted).length && now.every(([place, choice]) => wanted[place]?.symbol === choice.symbol)
  }
  return (
    <div className="far-control">
      <div className="colour-control">
        <span id="far-label">Other chords for the whole tune: take me this far</span>
        <Slider
          aria-labelledby="far-label" value={distance} min={0} max={1} step={0.05} marks={STOPS} getAriaValueText={(value) => `${Math.round(value * 100)} of 100`}
          onChange={(_, next) => setDistance(next as number)}
        />
      </div>
      {distance > 0 && (
        <div className="line-cards" role="radiogroup" aria-label="Ways found">
          {ways.map((way, at) => (
            <button key={at} type="button" role="radio" aria-checked={isTaken(way)} className="line-card" onClick={() => onEdit({ kind: 'way', choices: choicesOf(way), did: `way ${at + 1}, ${Math.round(way.distance * 100)} of 100 far` })}>
              <b>Way {at + 1}</b>
              <span>{Math.round(way.distance * 100)} of 100</span>
              <span>{way.chords.length} of {chords.length} chords changed</span>
              <span className="way-chords">
                {way.chords.filter((one) => one.rule.startsWith('b') || one.rule.startsWith('d')).slice(0, NAMED).map((one) => (
                  <span key={one.index}><ChordName chord={chord(one.symbol)} /> <small>{engravedWords(one.name)}</small></span>
                ))}
              </span>
            </button>
          ))}
        </div>
      )}
      <div className="lines-state" aria-live="polite">
        {state.kind === 'searching' && (
          <>
            <LinearProgress variant="determinate" value={(100 * state.done) / state.of} aria-label="Search for ways" />
            <span>Looking for ways</span>
            <Button size="small" onClick={stop}>Stop</Button>
          </>
        )}
        {state.kind === 'stopped' && 'Stopped. Move the slider to look again.'}
        {state.kind === 'found' && ways.length === 0 && 'Nothing can be changed here.'}
      </div>
      {changed && <Button size="small" onClick={onReasons}>All reasons on a page</Button>} {taken && <Button size="small" onClick={() => { onEdit({ kind: 'way', choices: {}, did: 'plain chords back' }); setDistance(0) }}>Put the plain chords back</Button>}
    </div>
  )
}
