import { firstOf, itemAt } from '../../../core/lists'
import { NEAR } from '../../../core/chart/beats'
import Button from '@mui/material/Button'
import { useMemo, useState } from 'react'
import { placeName } from '../../../core/chart/chart'
import type { BlockNote } from '../../../core/melody/block'
import { scaleFrom } from '../../../core/melody/block'
import { placeKey } from '../../../core/melody/melodyLine'
import { keyName, scaleNotes, type Key } from '../../../core/pitch/key'
import { noteName, pitchName, type Pitch } from '../../../core/pitch/note'
import type { MelodyNote } from '../../../core/reharm/melodyFit'
import type { BlockAsked } from '../../../workers/melodyQuestions'
import type { PlayerBody } from '../../../core/player/playerLimits'
import { ChordName } from '../../services/notation/ChordName'
import { engraved } from '../../../core/chord/engraved'
import { GripDiagram } from '../../services/notation/GripDiagram'
import { ChoiceField } from '../../services/controls/ChoiceField'
import { SearchState } from '../../services/room/SearchState'
import type { MelodyView } from './useMelody'
import { useAnswer } from '../../services/workers/useAnswer'
import type { TuneEdit } from '../../../core/tune/tuneEdit'

const FAMILIES = ['drop 2', 'drop 3', 'close', 'drop 2 and 4'] as const
type FamilyChoice = (typeof FAMILIES)[number] | 'any'
type BlockScale = 'sevenths' | 'sixth-diminished major' | 'sixth-diminished minor' | 'fourths'
const KINDS: Readonly<Record<BlockScale, string>> = {
  sevenths: 'Sevenths of the key',
  'sixth-diminished major': 'Sixth-diminished, major',
  'sixth-diminished minor': 'Sixth-diminished, minor',
  fourths: 'Fourths of the key',
}
/** Tones of a seventh chord that can be the melody. */
const TONES = [1, 3, 5, 7] as const
/** Octave in which a scale begins where there is no melody. */
const OCTAVE = 4

interface Props {
  view: Pick<MelodyView, 'notes' | 'phrases' | 'selected' | 'clock'>
  text: string
  songKey: Key
  capo: number
  body: PlayerBody
  onEdit: (edit: TuneEdit) => void
  onHear: (midis: readonly number[]) => void
}

/**
 * One kind of chord under every note of a scale or a phrase: sevenths in a family, the
 * sixth-diminished scale, fourths.
 */
export function BlocksTab({
  view: { notes, phrases, selected, clock },
  text,
  songKey,
  capo,
  body,
  onEdit,
  onHear,
}: Props) {
  const [kind, setKind] = useState<BlockScale>('sevenths')
  const [family, setFamily] = useState<FamilyChoice>('drop 2')
  const [tone, setTone] = useState<(typeof TONES)[number]>(1)
  const [over, setOver] = useState<'scale' | 'phrase'>('scale')
  const phrase = useMemo(() => phraseOf(notes, phrases, selected, clock), [notes, phrases, selected, clock])
  const minor = kind === 'sixth-diminished minor'
  const scale = useMemo(() => {
    const tonic = songKey.tonic
    const eight = kind.startsWith('sixth')
      ? scaleNotes({ tonic, mode: minor ? 'minor' : 'major' })
      : scaleNotes(songKey)
    return scaleFrom([...eight, tonic], OCTAVE)
  }, [songKey, kind, minor])
  const wanted: readonly Pitch[] = over === 'phrase' ? phrase.map(({ note }) => note) : scale
  const asFamily = family === 'any' ? null : family
  const asked = (): BlockAsked => {
    const key = keyName(songKey)
    if (kind === 'sevenths') return { kind, key, tone, family: asFamily }
    if (kind === 'fourths') return { kind, key }
    const chord = `${noteName(songKey.tonic)}${minor ? 'm6' : '6'}`
    return { kind: 'sixth-diminished', chord, family: asFamily }
  }
  const block = asked()
  const found = useAnswer(
    'melody',
    'blocks',
    wanted.length > 0 ? { asked: { body, text }, notes: wanted.map(pitchName), block } : null,
  )
  const blocks = found.current ? found.answer! : []
  return (
    <>
      <div className="melody-row">
        <ChoiceField
          label="Under"
          value={over}
          width={150}
          options={[
            ['scale', 'a scale going up'],
            ['phrase', 'the phrase of the note', phrase.length === 0],
          ]}
          onChoose={setOver}
        />
        <ChoiceField
          label="Chords"
          value={kind}
          width={210}
          options={Object.entries(KINDS) as [BlockScale, string][]}
          onChoose={setKind}
        />
        {kind !== 'fourths' && (
          <ChoiceField
            label="Family"
            value={family}
            width={130}
            options={[...FAMILIES, 'any' as const].map((one) => [one, one])}
            onChoose={setFamily}
          />
        )}
        {kind === 'sevenths' && (
          <ChoiceField
            label="On top"
            value={tone}
            width={110}
            options={TONES.map((one) => [one, `the ${one}`])}
            onChoose={setTone}
          />
        )}
        {over === 'phrase' && blocks.length === phrase.length && phrase.length > 0 && (
          <Button
            size="small"
            variant="contained"
            color="primary"
            onClick={() =>
              onEdit({
                kind: 'melody-fix',
                did: `${KINDS[kind].toLowerCase()} from ${placeName(firstOf(phrase))}`.slice(0, 80),
                fixed: Object.fromEntries(
                  phrase.map((note, at) => [
                    placeKey(note),
                    {
                      frets: [...itemAt(blocks, at).voicing.frets],
                      symbol:
                        itemAt(blocks, at).chord.tones.length > 0 ? itemAt(blocks, at).chord.canonical : null,
                    },
                  ]),
                ),
              })
            }
          >
            Put them under the phrase
          </Button>
        )}
      </div>
      {found.state.kind !== 'found' && (
        <SearchState
          state={found.state}
          onStop={found.stop}
          onAgain={found.again}
          label="Search for block chords"
        />
      )}
      <BlockList blocks={blocks} capo={capo} onHear={onHear} />
    </>
  )
}

/** The chords as they would be played, each to be heard. */
function BlockList({
  blocks,
  capo,
  onHear,
}: Pick<Props, 'capo' | 'onHear'> & { blocks: readonly BlockNote[] }) {
  return (
    <ol className="block-list" aria-label="Block chords">
      {blocks.map(({ note, chord, kind: what, voicing }, at) => (
        <li key={at}>
          <button type="button" className="grip-choice" title={what} onClick={() => onHear(voicing.midis)}>
            <b>{engraved(pitchName(note))}</b>
            {chord.tones.length > 0 && <ChordName chord={chord} />}
            <GripDiagram voicing={voicing} capo={capo} />
          </button>
        </li>
      ))}
    </ol>
  )
}

/** Notes of the phrase the selected note belongs to. */
function phraseOf(
  notes: readonly MelodyNote[],
  phrases: MelodyView['phrases'],
  selected: string | null,
  clock: MelodyView['clock'],
): MelodyNote[] {
  const note = notes.find((one) => placeKey(one) === selected) ?? notes[0]
  if (!note) return []
  const at = clock.at(note)
  const phrase = phrases.findLast(({ from }) => clock.at(from) <= at + NEAR)
  return phrase
    ? notes.filter(
        (one) => clock.at(one) >= clock.at(phrase.from) - NEAR && clock.at(one) <= clock.at(phrase.to) + NEAR,
      )
    : [note]
}
