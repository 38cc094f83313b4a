import Button from '@mui/material/Button'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useState } from 'react'
import { CONTOURS, type Contour } from '../../../core/leading/contour'
import { TEXTURES } from '../../../core/leading/texture'
import { STYLES, STYLE_NAMES, type StyleName } from '../../../core/leading/weights'
import { pitchNear } from '../../../core/melody/entry'
import type { Key } from '../../../core/pitch/key'
import { pitchName } from '../../../core/pitch/note'
import { engraved, engravedWords } from '../../../core/chord/engraved'
import { ChoiceField } from '../../services/controls/ChoiceField'
import { usePlayerSettings } from '../../services/player/PlayerContext'
import type { Leading } from '../../../core/tune/document'
import { OwnStyleDialog } from './OwnStyleDialog'
import { STYLE_LABELS, TEXTURE_LABELS } from './styleLabels'
import { TEXTURE_NAMES } from '../../../core/leading/textureNames'
import type { TextureName } from '../../../core/leading/textureNames'

interface Props {
  style: StyleName
  leading: Leading
  songKey: Key
  onStyle: (style: StyleName) => void
  onLeading: (leading: Leading) => void
}

/** Frets of one position: one for each finger and one to stretch to. */
const POSITION = 5
/** Pitches that can be held as a drone: from D3 to E5. */
const DRONES = Array.from({ length: 27 }, (_, at) => 50 + at)
const CONTOUR_LABELS: Readonly<Record<Contour, string>> = {
  rises: 'rises',
  falls: 'falls',
  arch: 'up and back',
  valley: 'down and back',
}

/** A drone as the value of a choice: `s` and its string, or `m` and its MIDI number. */
type DroneChosen = NonNullable<Props['leading']['drone']>
const valueOfDrone = (drone: DroneChosen): string =>
  'string' in drone ? `s${drone.string}` : `m${drone.midi}`
const droneOf = (value: string): DroneChosen =>
  value.startsWith('s') ? { string: Number(value.slice(1)) } : { midi: Number(value.slice(1)) }

/**
 * What the lines are led by: a named style or one of the player's own, where it is played, and
 * whether the form comes round again.
 */
export function StyleControl({ style, leading, songKey, onStyle, onLeading }: Props) {
  const nameOf = (midi: number) => pitchName(pitchNear(midi, songKey, true))
  const {
    settings: { styles, instrument },
    change,
  } = usePlayerSettings()
  const [mixing, setMixing] = useState(false)
  const { own, window, drone } = leading
  const strings = instrument.tuning.length
  const known = own && !styles.some((one) => one.name === own.name) ? [...styles, own] : styles
  return (
    <>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={own ? null : style}
        aria-label="Style of the lines"
        onChange={(_, next: StyleName | null) => next && onStyle(next)}
      >
        {STYLE_NAMES.map((name) => (
          <ToggleButton key={name} value={name} title={STYLES[name].says}>
            {STYLE_LABELS[name]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {known.length > 0 && (
        <ChoiceField
          label="Own style"
          value={own?.name ?? ''}
          width={130}
          options={[['', 'none'], ...known.map(({ name }) => [name, name] as const)]}
          onChoose={(name) => onLeading({ ...leading, own: known.find((one) => one.name === name) ?? null })}
        />
      )}
      <Button size="small" onClick={() => setMixing(true)}>
        Mix a style
      </Button>
      {style === 'position' && (
        <ChoiceField
          label="Frets"
          value={window ? window[0] : 0}
          width={120}
          options={[
            [0, 'the best five'],
            ...Array.from(
              { length: Math.max(1, instrument.cutaway - POSITION + 1) },
              (_, at) => [at + 1, `${at + 1} to ${at + POSITION}`] as const,
            ),
          ]}
          onChoose={(low) => onLeading({ ...leading, window: low ? [low, low + POSITION - 1] : null })}
        />
      )}
      {style === 'top' && (
        <ChoiceField
          label="Top voice"
          value={leading.contour ?? ''}
          width={120}
          options={[['', 'by step'], ...CONTOURS.map((one) => [one, CONTOUR_LABELS[one]] as const)]}
          onChoose={(contour) => onLeading({ ...leading, contour: contour === '' ? null : contour })}
        />
      )}
      {style === 'drone' && (
        <ChoiceField
          label="Drone"
          value={drone === null ? '' : valueOfDrone(drone)}
          width={150}
          options={[
            ['', 'the best one'],
            ...instrument.tuning
              .map(
                (open, at) =>
                  [
                    `s${at}`,
                    engravedWords(`string ${strings - at} (${open.replace(/\d/, '')}) open`),
                  ] as const,
              )
              .reverse(),
            ...DRONES.map((midi) => [`m${midi}`, `${engraved(nameOf(midi))} held`] as const),
          ]}
          onChoose={(value) => onLeading({ ...leading, drone: value === '' ? null : droneOf(value) })}
        />
      )}
      <ToggleButton
        size="small"
        value="round"
        selected={leading.loop}
        title="The last grip leads back to the first, for playing round and round"
        onChange={() => onLeading({ ...leading, loop: !leading.loop })}
      >
        Lead back to the top
      </ToggleButton>
      {mixing && (
        <OwnStyleDialog
          from={own ?? { name: 'My style', base: 'smooth', weights: { ...STYLES[style].weights } }}
          styles={styles}
          onClose={() => setMixing(false)}
          onKeep={(kept, use) => {
            change({ styles: kept })
            onLeading({ ...leading, own: use })
            setMixing(false)
          }}
          onRemove={(name) => {
            change({ styles: styles.filter((one) => one.name !== name) })
            setMixing(false)
          }}
        />
      )}
    </>
  )
}

/** The kind of grip: left to the chart, or one for the whole tune. */
export function TextureControl({
  texture,
  onTexture,
}: {
  texture: TextureName | null
  onTexture: (texture: TextureName | null) => void
}) {
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      value={texture ?? ''}
      aria-label="Texture"
      onChange={(_, next: TextureName | '' | null) => next !== null && onTexture(next === '' ? null : next)}
    >
      <ToggleButton value="" title="The kind of grip that players take for such a chart">
        By the chart
      </ToggleButton>
      {TEXTURE_NAMES.map((name) => (
        <ToggleButton key={name} value={name} title={TEXTURES[name].says}>
          {TEXTURE_LABELS[name]}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  )
}
