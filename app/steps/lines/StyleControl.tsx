import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
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

/** What the lines are led by: a named style or one of the player's own, where it is played, and whether the form comes round again. */
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
        <TextField
          select
          size="small"
          label="Own style"
          value={own?.name ?? ''}
          sx={{ minWidth: 130 }}
          onChange={(event) =>
            onLeading({ ...leading, own: known.find((one) => one.name === event.target.value) ?? null })
          }
        >
          <MenuItem value="">none</MenuItem>
          {known.map((one) => (
            <MenuItem key={one.name} value={one.name}>
              {one.name}
            </MenuItem>
          ))}
        </TextField>
      )}
      <Button size="small" onClick={() => setMixing(true)}>
        Mix a style
      </Button>
      {style === 'position' && (
        <TextField
          select
          size="small"
          label="Frets"
          value={window ? `${window[0]}` : ''}
          sx={{ minWidth: 120 }}
          onChange={(event) => {
            const low = Number(event.target.value)
            onLeading({ ...leading, window: low ? [low, low + POSITION - 1] : null })
          }}
        >
          <MenuItem value="">the best five</MenuItem>
          {Array.from({ length: Math.max(1, instrument.cutaway - POSITION + 1) }, (_, at) => (
            <MenuItem key={at} value={`${at + 1}`}>
              {at + 1} to {at + POSITION}
            </MenuItem>
          ))}
        </TextField>
      )}
      {style === 'top' && (
        <TextField
          select
          size="small"
          label="Top voice"
          value={leading.contour ?? ''}
          sx={{ minWidth: 120 }}
          onChange={({ target: { value } }) =>
            onLeading({ ...leading, contour: value === '' ? null : (value as Contour) })
          }
        >
          <MenuItem value="">by step</MenuItem>
          {CONTOURS.map((one) => (
            <MenuItem key={one} value={one}>
              {CONTOUR_LABELS[one]}
            </MenuItem>
          ))}
        </TextField>
      )}
      {style === 'drone' && (
        <TextField
          select
          size="small"
          label="Drone"
          value={drone === null ? '' : valueOfDrone(drone)}
          sx={{ minWidth: 150 }}
          onChange={({ target: { value } }) =>
            onLeading({ ...leading, drone: value === '' ? null : droneOf(value) })
          }
        >
          <MenuItem value="">the best one</MenuItem>
          {instrument.tuning
            .map((_, at) => (
              <MenuItem key={at} value={`s${at}`}>
                {engravedWords(`string ${strings - at} (${instrument.tuning[at]!.replace(/\d/, '')}) open`)}
              </MenuItem>
            ))
            .reverse()}
          {DRONES.map((midi) => (
            <MenuItem key={midi} value={`m${midi}`}>
              {engraved(nameOf(midi))} held
            </MenuItem>
          ))}
        </TextField>
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
