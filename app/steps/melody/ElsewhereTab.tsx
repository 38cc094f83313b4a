import Button from '@mui/material/Button'
import { useState } from 'react'
import type { UnderAsked } from '../../../workers/melodyQuestions'
import type { HarmonisedLine } from '../../../core/melody/melodyLine'
import { keyName } from '../../../core/pitch/key'
import type { MelodyNote } from '../../../core/reharm/melodyFit'
import { byOctaves } from '../../../core/melody/melody'
import { keyInWords } from '../../../core/chord/engraved'
import type { TuneDocument } from '../../../core/tune/document'
import { aloneInWords, effortInWords } from '../../services/words/handWords'
import { keep } from '../../../core/tune/applyMelody'
import { SearchState } from '../../services/room/SearchState'
import { settingsOf } from './useMelody'
import { useAnswer } from '../../services/workers/useAnswer'
import type { TuneEdit } from '../../../core/tune/tuneEdit'

interface Props {
  document: Pick<TuneDocument, 'chordMelody'>
  notes: readonly MelodyNote[]
  asked: UnderAsked | null
  onEdit: (edit: TuneEdit) => void
  onHear: (line: HarmonisedLine) => void
}

/**
 * The same melody in other positions, on lower strings, in other registers, and in all twelve keys,
 * the easiest for the hand first.
 */
export function ElsewhereTab({ document: { chordMelody }, notes, asked, onEdit, onHear }: Props) {
  const [looking, setLooking] = useState<'places' | 'keys' | null>(null)
  const places = useAnswer('melody', 'elsewhere', looking === 'places' && asked ? { asked } : null)
  const keys = useAnswer('melody', 'keys', looking === 'keys' && asked ? { asked } : null)
  const settings = settingsOf(chordMelody)
  const effort = (one: { effort: number; alone: number }) =>
    `${effortInWords(one.effort)}${aloneInWords(one.alone)}`
  return (
    <>
      <div className="melody-row">
        <Button
          size="small"
          variant={looking === 'places' ? 'contained' : 'outlined'}
          color="primary"
          disabled={!asked}
          onClick={() => setLooking('places')}
        >
          Other positions, strings, registers
        </Button>
        <Button
          size="small"
          variant={looking === 'keys' ? 'contained' : 'outlined'}
          color="primary"
          disabled={!asked}
          onClick={() => setLooking('keys')}
        >
          All twelve keys
        </Button>
        {!asked && <span className="quiet">Put a melody in first.</span>}
      </div>
      {looking && (
        <SearchState
          {...(looking === 'places'
            ? { state: places.state, onStop: places.stop, onAgain: places.again }
            : { state: keys.state, onStop: keys.stop, onAgain: keys.again })}
          label="Search for other places"
        />
      )}
      {looking === 'places' && places.current && (
        <ul className="melody-list" aria-label="Other places">
          {places.answer!.map((one) => (
            <li key={one.where}>
              <b>{one.where}</b> <span>{effort(one)}</span>
              <Button size="small" onClick={() => onHear(one.line)}>
                Hear it
              </Button>
              <Button
                size="small"
                onClick={() =>
                  one.octaves !== 0
                    ? onEdit({
                        kind: 'melody',
                        melody: byOctaves(notes, one.octaves).map(keep),
                        did: `melody ${one.where}`,
                      })
                    : onEdit({
                        kind: 'chord-melody',
                        settings: {
                          ...settings,
                          window: one.window ? [...one.window] : null,
                          topString:
                            one.strings && asked
                              ? asked.body.instrument.tuning.length - one.strings.length + 1
                              : 1,
                        },
                      })
                }
              >
                Play it there
              </Button>
            </li>
          ))}
        </ul>
      )}
      {looking === 'keys' && keys.current && keys.answer!.length < 12 && (
        <p className="quiet">
          {12 - keys.answer!.length} {keys.answer!.length === 11 ? 'key' : 'keys'} left out: there a note lies
          where no hand plays it within this position and these strings.
        </p>
      )}
      {looking === 'keys' && keys.current && (
        <ul className="melody-list" aria-label="Keys by ease">
          {keys.answer!.map((one) => (
            <li key={keyName(one.key)}>
              <b>{keyInWords(one.key)}</b>{' '}
              <span>
                {effort(one)}
                {one.octaves !== 0
                  ? `, melody ${Math.abs(one.octaves)} ${Math.abs(one.octaves) === 1 ? 'octave' : 'octaves'} ${one.octaves > 0 ? 'up' : 'down'}`
                  : ''}
              </span>
              <Button size="small" onClick={() => onHear(one.line)}>
                Hear it
              </Button>
              {one.semitones !== 0 && (
                <Button size="small" onClick={() => onEdit({ kind: 'transpose', to: keyName(one.key) })}>
                  Put the tune in this key
                </Button>
              )}
              {one.semitones === 0 && <span className="quiet">the tune’s key</span>}
            </li>
          ))}
        </ul>
      )}
    </>
  )
}
