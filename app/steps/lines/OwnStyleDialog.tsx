import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import MenuItem from '@mui/material/MenuItem'
import Slider from '@mui/material/Slider'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import {
  mixedWeights,
  STYLES,
  STYLE_NAMES,
  COST_TERMS,
  TERM_NAMES,
  type StyleName,
  type Term,
  type Weights,
} from '../../../core/leading/weights'
import { MOST_STYLES } from '../../../core/player/playerSettings'
import { STYLE_LABELS } from './styleLabels'
import { ownStyle, type OwnStyle } from '../../../core/player/ownStyle'

/** The named styles whose grips keep to limits of their own, and the plain one. */
const BASES: readonly StyleName[] = ['smooth', 'position', 'drone', 'thin', 'rootless']
/** What each term of the search is for, as a player says it. */
// prettier-ignore
const MATTERS: Readonly<Record<Term, string>> = {
  motion: 'All voices move little', upper: 'Voices above the bass move little', low: 'Bass on the low strings', room: 'Room for a bass player', texture: 'One kind of grip', idiom: 'Grips that players write down', tripled: 'No tone three times', plain: 'A tension in every chord', bass: 'Bass by step', walk: 'Written steps of the bass by step', top: 'Top voice by step', outer: 'Bass and top move against each other', parallels: 'No parallel fifths and octaves', tendency: 'Sevenths and leading notes resolve',
  tame: 'Sevenths rise into tensions', family: 'One layout throughout', voices: 'The same number of voices', held: 'Common tones stay', leaps: 'No leaps inside', contour: 'Top follows the wanted contour', hand: 'The hand travels little',
  fingers: 'Fingers stay down', late: 'In time at the tempo of the tune', grip: 'Grips that are easy to hold', mud: 'Nothing muddy down low', sour: 'No minor ninths', fullness: 'Full chords', open: 'No open strings beside high frets', register: 'Top voice in the middle',
}
/** Weights of the named styles lie below this. */
const HEAVIEST = 5

interface Props {
  /** The style it begins with. */
  from: OwnStyle
  styles: readonly OwnStyle[]
  onClose: () => void
  /** Keeps the player's styles, and leads by one of them. */
  onKeep: (styles: OwnStyle[], use: OwnStyle) => void
  onRemove: (name: string) => void
}

/** A style of the player's own: named styles mixed, and every weight open to the hand. */
export function OwnStyleDialog({ from, styles, onClose, onKeep, onRemove }: Props) {
  const [name, setName] = useState(from.name)
  const [base, setBase] = useState(from.base)
  const [shares, setShares] = useState<Partial<Record<StyleName, number>>>({})
  const [weights, setWeights] = useState<Weights>(from.weights as Weights)
  const mix = (style: StyleName, share: number) => {
    const next = { ...shares, [style]: share }
    setShares(next)
    if (Object.values(next).some((one) => one > 0)) setWeights(mixedWeights(next))
  }
  const made = ownStyle.safeParse({ name, base, weights })
  const others = styles.filter((one) => one.name !== name.trim())
  const full = others.length >= MOST_STYLES
  const replaces = others.length < styles.length ? 'Replaces the style of this name.' : ' '
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth>
      <DialogTitle>A style of your own</DialogTitle>
      <DialogContent className="own-style">
        <div className="own-style-name">
          <TextField
            label="Name"
            size="small"
            value={name}
            onChange={(event) => setName(event.target.value)}
            error={name.trim() === ''}
            helperText={full ? `You keep ${MOST_STYLES} styles: delete one first.` : replaces}
          />
          <TextField
            select
            label="Grips"
            size="small"
            value={base}
            onChange={(event) => setBase(event.target.value as StyleName)}
            helperText={STYLES[base].says}
            sx={{ minWidth: 180 }}
          >
            {BASES.map((one) => (
              <MenuItem key={one} value={one}>
                {one === 'smooth' ? 'Any' : STYLE_LABELS[one]}
              </MenuItem>
            ))}
          </TextField>
        </div>
        <h3>Mix of the named styles</h3>
        <div className="own-style-sliders">
          {STYLE_NAMES.filter((one) => !BASES.includes(one) || one === 'smooth').map((one) => (
            <label key={one} title={STYLES[one].says}>
              <span>{STYLE_LABELS[one]}</span>
              <Slider
                size="small"
                value={shares[one] ?? 0}
                min={0}
                max={10}
                step={1}
                valueLabelDisplay="auto"
                aria-label={`Share of ${STYLE_LABELS[one]}`}
                onChange={(_, value) => mix(one, value as number)}
              />
            </label>
          ))}
        </div>
        <details>
          <summary>What matters how much, one by one</summary>
          <div className="own-style-sliders">
            {TERM_NAMES.map((term) => (
              <label key={term} title={`Counted: ${COST_TERMS[term]}`}>
                <span>{MATTERS[term]}</span>
                <Slider
                  size="small"
                  value={weights[term]}
                  min={0}
                  max={Math.max(HEAVIEST, weights[term])}
                  step={0.01}
                  valueLabelDisplay="auto"
                  aria-label={MATTERS[term]}
                  onChange={(_, value) => setWeights({ ...weights, [term]: value as number })}
                />
              </label>
            ))}
          </div>
        </details>
      </DialogContent>
      <DialogActions>
        {styles.some((one) => one.name === from.name) && (
          <Button onClick={() => onRemove(from.name)}>Delete {from.name}</Button>
        )}
        <Button onClick={onClose}>Cancel</Button>
        <Button
          variant="contained"
          disabled={!made.success || full}
          onClick={() => made.success && onKeep([...others, made.data], made.data)}
        >
          Keep and lead by it
        </Button>
      </DialogActions>
    </Dialog>
  )
}
