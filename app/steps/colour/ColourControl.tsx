import { itemAt } from '../../../core/lists'
import Slider from '@mui/material/Slider'
import type { ColourSetting } from '../../../core/reharm/colour'

const STOPS: readonly { value: ColourSetting; label: string; says: string }[] = [
  { value: 0, label: 'Plain', says: 'Every chord as typed.' },
  { value: 1, label: 'Sevenths', says: 'Sevenths and sixths where each chord’s function allows them.' },
  { value: 2, label: 'Ninths', says: 'Ninths and 6/9; a V to minor gets its b9.' },
  { value: 3, label: 'Full', says: 'Elevenths, thirteenths, the lydian IV.' },
  { value: 4, label: 'Altered', says: 'A V that resolves is altered; the others take their sharp eleventh.' },
]

/** The one control that takes every chord from plain to coloured by its function. */
export function ColourControl({
  value,
  byHand,
  onChange,
}: {
  value: ColourSetting
  byHand: number
  onChange: (value: ColourSetting) => void
}) {
  return (
    <div
      className="colour-control"
      title={`${itemAt(STOPS, value).says}${byHand > 0 ? ` ${byHand} ${byHand === 1 ? 'chord was' : 'chords were'} chosen by hand and ${byHand === 1 ? 'stays' : 'stay'}.` : ''}`}
    >
      <span className="word-name" aria-hidden>
        Colour
      </span>
      <Slider
        size="small"
        aria-label="Colour of the whole tune"
        value={value}
        min={0}
        max={4}
        step={1}
        marks={STOPS.map(({ value: at }) => ({ value: at }))}
        getAriaValueText={(at) => itemAt(STOPS, at).label}
        onChange={(_, next) => {
          if (next !== value) onChange(next as ColourSetting)
        }}
      />
      <b>{itemAt(STOPS, value).label}</b>
    </div>
  )
}
