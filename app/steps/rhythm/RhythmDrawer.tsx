import { itemAt } from '../../../core/lists'
import { useEffect, useRef } from 'react'
import { meterName, placeName, type Chart } from '../../../core/chart/chart'
import type { Figure } from '../../../core/rhythm/figures'
import type { Laid } from '../../../core/rhythm/lay'
import type { GuitarHit } from '../../../core/tune/accompaniment'
import type { Rhythm } from '../../../core/tune/rhythmSchema'
import { TriedNotice } from '../../services/controls/TriedNotice'
import { Roving } from '../../services/controls/Roving'
import { engravedWords } from '../../../core/chord/engraved'
import { hitInWords } from './RhythmRow'

interface Props {
  chart: Chart
  rhythm: Rhythm
  /** How the figure lies on the tune. */
  laid: Pick<Laid, 'silent' | 'notes'>
  figures: readonly Figure[]
  /** The figure that is tried, by its place in the list. */
  tried: number | null
  onTry: (at: number | null) => void
  onKeep: (figure: string | null) => void
  hit: GuitarHit | null
  byHand: boolean
}

/** The hit taken hold of, and the figures for this metre. */
export function RhythmDrawer({ chart, rhythm, laid, figures, tried, onTry, onKeep, hit, byHand }: Props) {
  const list = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (tried !== null)
      list.current?.querySelector(`[data-figure='${tried}']`)?.scrollIntoView({ block: 'nearest' })
  }, [tried])
  return (
    <div ref={list}>
      {hit && (
        <>
          <h2>{engravedWords(hit.slot.text)}</h2>
          <p>
            {engravedWords(hitInWords(hit))}.{hit.gaveWay && ` ${hit.gaveWay}.`}
          </p>
          <p className="quiet">
            Shift ← →, or pulling, moves it, − + its length, A accent, U push, Delete leaves it out, Backspace
            gives it back to the figure{byHand ? ' (it is by hand now)' : ''}.
          </p>
        </>
      )}
      {laid.notes.map((note) => (
        <p key={note}>{engravedWords(note)}</p>
      ))}
      {laid.silent.length > 0 && <Silent silent={laid.silent} />}
      <h3>Figures in {meterName(chart.meter)}</h3>
      {figures.length === 0 && (
        <p className="quiet">There is none for this metre yet: tap one in, or put hits in by hand (I).</p>
      )}
      {tried !== null && figures[tried] && (
        <TriedNotice onKeep={() => onKeep(itemAt(figures, tried).name)} onBack={() => onTry(null)}>
          <b>{figures[tried].name}</b> is tried: {figures[tried].why}.
        </TriedNotice>
      )}
      <Roving as="ol" className="plain-list">
        <li>
          <button
            type="button"
            className="figure-option"
            aria-pressed={rhythm.figure === null}
            onClick={() => onKeep(null)}
          >
            each chord once <small>held to the next</small>
          </button>
        </li>
        {figures.map((figure, at) => (
          <li key={figure.name}>
            <button
              type="button"
              data-figure={at}
              className={at === tried ? 'figure-option at' : 'figure-option'}
              aria-pressed={rhythm.figure === figure.name}
              title={figure.why}
              onClick={() => (at === tried ? onKeep(figure.name) : onTry(at))}
            >
              {figure.name}
              <small>
                {figure.feel === 'either' ? '' : figure.feel} {figure.hand}
              </small>
            </button>
          </li>
        ))}
      </Roving>
    </div>
  )
}

/** Silent chords that are named before the others are counted. */
const NAMED = 4

/** Chords the guitar leaves out, each with its reason. */
function Silent({ silent }: Pick<Laid, 'silent'>) {
  const more = silent.length - NAMED
  return (
    <p>
      Not struck:{' '}
      {silent
        .slice(0, NAMED)
        .map((one) => `${one.text} in ${placeName(one)} (${one.why})`)
        .map((words, at) => (
          <span key={words}>
            {at > 0 && ', '}
            {engravedWords(words)}
          </span>
        ))}
      {more > 0 && `, and ${more} more`}.
    </p>
  )
}
