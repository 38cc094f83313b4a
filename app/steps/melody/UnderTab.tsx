import { itemAt } from '../../../core/lists'
import Button from '@mui/material/Button'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { DENSITIES, type Density } from '../../../core/melody/melodyLine'
import { MELODY_TEXTURES, type MelodyTexture } from '../../../core/melody/melodyTextures'
import { aloneInWords, effortInWords } from '../../services/words/handWords'
import { engravedWords } from '../../../core/chord/engraved'
import { ChoiceField } from '../../services/controls/ChoiceField'
import { usePlayerSettings } from '../../services/player/PlayerContext'
import type { TuneDocument } from '../../../core/tune/document'
import { settingsOf, type MelodyView } from './useMelody'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import { MELODY_TEXTURE_NAMES } from '../../../core/melody/melodyTextures'

export const DENSITY_NAMES: Readonly<Record<Density, string>> = {
  bar: 'each bar',
  chord: 'each chord',
  beat: 'each beat',
  note: 'every note',
}
export const MELODY_TEXTURE_LABELS: Readonly<Record<MelodyTexture, string>> = {
  full: 'Full',
  shells: 'Shells',
  'drop 2': 'Drop 2',
  fourths: 'Fourths',
  'two voices': 'Two voices',
  'two lines': 'Two lines',
}
/** Frets of a position, and the lowest frets that are offered. */
const POSITION = 6
const POSITIONS = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]

interface Props {
  document: Pick<TuneDocument, 'chordMelody'>
  view: MelodyView
  onEdit: (edit: TuneEdit) => void
}

/**
 * How chords come under the melody: how often, how full, where on the neck; the ways found, and
 * what is troublesome in the one that is kept.
 */
export function UnderTab({ document: { chordMelody }, view, onEdit }: Props) {
  const settings = settingsOf(chordMelody)
  const {
    settings: { instrument },
  } = usePlayerSettings()
  const stringName = (string: number) =>
    engravedWords(`${string} (${instrument.tuning.at(-string)?.replace(/\d/, '') ?? ''})`)
  const set = (changed: Partial<typeof settings>) =>
    onEdit({ kind: 'chord-melody', settings: { ...settings, ...changed } })
  const fixed = Object.keys(chordMelody.fixed).length
  return (
    <>
      <div className="melody-row">
        <span className="quiet">A chord with</span>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={settings.density}
          aria-label="A chord with"
          disabled={settings.texture === 'two lines'}
          onChange={(_, density: Density | null) => density && set({ density })}
        >
          {DENSITIES.map((one) => (
            <ToggleButton
              key={one}
              value={one}
              title={`A chord with the first note of ${DENSITY_NAMES[one]}`}
            >
              {DENSITY_NAMES[one]}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={settings.texture}
          aria-label="Texture"
          onChange={(_, texture: MelodyTexture | null) => texture && set({ texture })}
        >
          {MELODY_TEXTURE_NAMES.map((one) => (
            <ToggleButton key={one} value={one} title={MELODY_TEXTURES[one].says}>
              {MELODY_TEXTURE_LABELS[one]}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <ToggleButton
          size="small"
          value="fills"
          selected={settings.fills}
          disabled={settings.texture === 'two lines'}
          title="Chords that begin where the melody rests are struck too; those that come under a long note always are"
          onChange={() => set({ fills: !settings.fills })}
        >
          Chords in rests
        </ToggleButton>
        <ChoiceField
          label="Position"
          value={settings.window?.[0] ?? 0}
          width={120}
          options={[
            [0, 'whole neck'],
            ...[...new Set([...POSITIONS, ...(settings.window ? [settings.window[0]] : [])])].map(
              (low) =>
                [
                  low,
                  `frets ${low} to ${settings.window?.[0] === low ? settings.window[1] : low + POSITION - 1}`,
                ] as const,
            ),
          ]}
          onChoose={(low) => set({ window: low ? [low, low + POSITION - 1] : null })}
        />
        <ChoiceField
          label="Melody on"
          value={settings.topString}
          width={130}
          options={[1, 2, 3].map((string) => [
            string,
            string === 1 ? 'any string' : `string ${stringName(string)} and lower`,
          ])}
          onChoose={(topString) => set({ topString })}
        />
        {fixed > 0 && (
          <Button
            size="small"
            onClick={() =>
              onEdit({
                kind: 'melody-fix',
                fixed: Object.fromEntries(Object.keys(chordMelody.fixed).map((place) => [place, null])),
                did: 'all grips under the melody left to the search',
              })
            }
          >
            Let the search choose all ({fixed} by hand)
          </Button>
        )}
        {view.lines.length > 0 && <WaysFound view={view} onEdit={onEdit} />}
      </div>
    </>
  )
}

/** Ways found through the whole tune, one of them chosen. */
function WaysFound({ view, onEdit }: Pick<Props, 'view' | 'onEdit'>) {
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      value={view.chosen}
      aria-label="Ways found"
      onChange={(_, line: number | null) => line !== null && onEdit({ kind: 'melody-line', line })}
    >
      {view.lines.map((line, at) => {
        const alone = line.notes.filter(({ kind, chord }) => kind === 'single note' && chord !== null).length
        return (
          <ToggleButton
            key={at}
            value={at}
            title={`${line.notes.filter(({ under }) => under === 'chord').length} grips`}
          >
            Way {at + 1}
            <small>
              {effortInWords(itemAt(view.efforts, at))}
              {aloneInWords(alone)}
            </small>
          </ToggleButton>
        )
      })}
    </ToggleButtonGroup>
  )
}
