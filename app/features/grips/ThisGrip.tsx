import Button from '@mui/material/Button'
import { useMemo, useState } from 'react'
import { engraved } from '../../../core/chord/engraved'
import { parseChord } from '../../../core/chord/parseChord'
import type { Frets } from '../../../core/neck/instrument'
import { noteName, plainSpelling } from '../../../core/pitch/note'
import { wholeNeck } from '../../../core/player/playerLimits'
import { stringingOf } from '../../../core/tune/sounding'
import { voicingOf, type Voicing } from '../../../core/voicing/voicing'
import type { BookGrip } from '../../../db/grips'
import { GripFacts } from '../../services/grips/GripFacts'
import { GripNames } from '../../services/grips/GripNames'
import { RelatedGrips } from '../../services/grips/RelatedGrips'
import { ChordName } from '../../services/notation/ChordName'
import { GripDiagram } from '../../services/notation/GripDiagram'
import { usePlayerSettings } from '../../services/player/PlayerContext'
import { useAnswer } from '../../services/workers/useAnswer'
import { Comparison } from './Comparison'
import { KeepForm } from './KeepForm'
import type { GripRead } from './useGripRead'

/** What the grip on the neck is called, how it is held, and what belongs to it. */
export function ThisGrip({ grip, present }: { grip: GripRead; present: BookGrip | undefined }) {
  const { settings } = usePlayerSettings()
  const [compared, setCompared] = useState<{ frets: Frets; symbol: string } | null>(null)
  const limits = useMemo(() => wholeNeck(settings), [settings])
  const { frets, midis, chord, voicing, fingerings, songKey, over } = grip
  const related = useAnswer(
    'search',
    'related',
    voicing && chord
      ? {
          symbol: chord.canonical,
          frets: [...frets],
          capo: 0,
          bass: 'any',
          key: songKey ? grip.by.key : null,
          body: settings,
        }
      : null,
    { inBackground: true },
  )
  const highest = Math.max(0, ...frets.map((fret) => fret ?? 0))
  const other = compared && voicing ? voicingFor(compared, limits) : null
  if (midis.length === 0)
    return (
      <section aria-label="This grip">
        <p className="empty">
          Touch the neck, or type frets such as x 3 2 0 1 0, to read what a grip is called; or type a chord
          and look for its grips.
        </p>
      </section>
    )
  return (
    <section aria-label="This grip">
      <h2>{chord ? <ChordName chord={chord} /> : 'No usual name'}</h2>
      {!chord && (
        <p>
          It sounds {midis.map((midi) => engraved(noteName(plainSpelling(midi, false)))).join(', ')}: no usual
          chord has all of these. Name a root above to read it against.
        </p>
      )}
      {highest > settings.instrument.frets && (
        <p className="fault">
          Fret {highest} is beyond the neck: the instrument has {settings.instrument.frets} frets (Player
          page).
        </p>
      )}
      {fingerings && !fingerings.playable && (
        <p className="fault">This hand does not hold it: {fingerings.why}.</p>
      )}
      {voicing && chord && (
        <div className="present-grip">
          <GripDiagram voicing={voicing} scale={1.6} />
          <GripFacts voicing={voicing} chord={chord} />
        </div>
      )}
      <h3>It can be called</h3>
      <GripNames
        midis={[...midis]}
        {...(over ? { over } : {})}
        {...(songKey ? { songKey } : {})}
        onName={(name) => grip.readBy({ symbol: name.canonical })}
      />
      {voicing && chord && (
        <>
          <KeepForm
            key={`${chord.canonical}${frets.join()}`}
            symbol={chord.canonical}
            frets={frets}
            instrument={stringingOf(settings, 0)}
            present={present}
          />
          <div className="drawer-buttons">
            <Button size="small" onClick={() => setCompared({ frets, symbol: chord.canonical })}>
              Compare others with this one
            </Button>
          </div>
          {other && compared && <Comparison first={other} symbol={compared.symbol} second={voicing} />}
          <RelatedGrips
            related={related.now}
            now={frets.join()}
            onTake={(one, name) => grip.take(one.frets, name ?? chord.canonical)}
          />
        </>
      )}
    </section>
  )
}

function voicingFor(
  { frets, symbol }: { frets: Frets; symbol: string },
  limits: ReturnType<typeof wholeNeck>,
): Voicing | null {
  const of = parseChord(symbol)
  return of.ok && frets.length === limits.instrument.tuning.length ? voicingOf(frets, of.value, limits) : null
}
