import Slider from '@mui/material/Slider'
import { useId, useState, type ReactNode } from 'react'
import { useOnChange } from '../../services/words/stable'

interface Props {
  name: string
  value: number
  min: number
  max: number
  step: number
  /** What a value is called, beside the handle and for those who listen. */
  says?: (value: number) => string
  disabled?: boolean
  /** What stands behind it. */
  children?: ReactNode
  /** Where it was let go: one step of undo, however far it was moved. */
  onSet: (value: number) => void
}

/** A setting between two ends, with its name before it. */
export function SettingSlider({ name, value, says = String, children, onSet, ...range }: Props) {
  const id = useId()
  const [moving, setMoving] = useState(value)
  useOnChange(value, setMoving)
  return (
    <>
      <span id={id}>{name}</span>
      <Slider
        {...range}
        aria-labelledby={id}
        value={moving}
        valueLabelDisplay="auto"
        valueLabelFormat={says}
        getAriaValueText={says}
        onChange={(_, next) => setMoving(Number(next))}
        onChangeCommitted={(_, next) => {
          if (Number(next) !== value) onSet(Number(next))
        }}
      />
      <span className="quiet">{children}</span>
    </>
  )
}
