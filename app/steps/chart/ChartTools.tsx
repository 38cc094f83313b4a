import { theOne } from '../../../core/lists'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { memo } from 'react'
import type { NumeralSchool } from '../../../core/analysis/numeral'
import type { SkeletonLevel } from '../../../core/analysis/skeleton'
import { MOST_CAPO } from '../../../core/chart/parseChart'
import { keyAbove } from '../../../core/chart/transpose'
import { keyName, parseKey, type Key } from '../../../core/pitch/key'
import { must } from '../../../core/result'
import { BarWord } from '../../services/controls/ControlBar'
import { keyInWords } from '../../../core/chord/engraved'
import { useNumerals } from '../../services/notation/numeralCookie'

/** How much of the chart is shown: 0 all of it, else a level of the skeleton. */
export type SkeletonShown = 0 | SkeletonLevel

// prettier-ignore
export const SKELETON_SHOWN: readonly { value: SkeletonShown; label: string; says: string }[] = [
  { value: 0, label: 'As written', says: 'The whole chart' },
  { value: 1, label: 'Without passing chords', says: 'Each V takes the time of its ii; passing and approach chords are left out' },
  { value: 2, label: 'Sevenths', says: 'The same, and every chord with no more than its seventh' },
  { value: 3, label: 'Triads', says: 'The same, and every chord with no more than its triad' },
]

const SCHOOLS: readonly { value: NumeralSchool; label: string; says: string }[] = [
  { value: 'case', label: 'ii7 V7', says: 'Numerals whose case shows major and minor' },
  { value: 'capitals', label: 'IIm7 V7', says: 'Numerals in capitals with the quality written out' },
]

/** Major keys up to seven sharps or flats as a player looks for them, and their minors. */
const TONICS: Readonly<Record<Key['mode'], readonly string[]>> = {
  major: ['C', 'Db', 'C#', 'D', 'Eb', 'E', 'F', 'F#', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B', 'Cb'],
  minor: ['Cm', 'C#m', 'Dm', 'D#m', 'Ebm', 'Em', 'Fm', 'F#m', 'Gm', 'G#m', 'Abm', 'Am', 'A#m', 'Bbm', 'Bm'],
}

/** How much of the chart is shown. */
export function ShownControl({
  shown,
  onShown,
}: {
  shown: SkeletonShown
  onShown: (shown: SkeletonShown) => void
}) {
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      value={shown}
      aria-label="Shown of the chart"
      onChange={(_, next: SkeletonShown | null) => next !== null && onShown(next)}
    >
      {SKELETON_SHOWN.map(({ value, label: name, says }) => (
        <ToggleButton key={value} value={value} title={says}>
          {name}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  )
}

/** The school of the numerals. */
export function NumeralsControl() {
  const { school, choose } = useNumerals()
  const now = theOne(SCHOOLS, ({ value }) => value === school)
  return (
    <BarWord name="Numerals" term="numerals" says={now.label}>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={school}
        aria-label="Numerals"
        onChange={(_, next: NumeralSchool | null) => next && choose(next)}
      >
        {SCHOOLS.map(({ value, label: name, says }) => (
          <ToggleButton key={value} value={value} title={says}>
            {name}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </BarWord>
  )
}

interface Props {
  keyNow: Key
  capo: number
  onTranspose: (to: string) => void
  onCapo: (fret: number) => void
}

/** The tune in another key, and the capo. */
export const KeyAndCapo = memo(function KeyAndCapo({ keyNow, capo, onTranspose, onCapo }: Props) {
  return (
    <>
      <span className="word-choice">
        <label id="transpose-label" className="word-name">
          Key{' '}
        </label>
        <Select
          size="small"
          variant="standard"
          labelId="transpose-label"
          value={keyName(keyNow)}
          onChange={(event) => onTranspose(event.target.value)}
        >
          {TONICS[keyNow.mode].map((name) => (
            <MenuItem key={name} value={name}>
              {keyInWords(must(parseKey(name)))}
            </MenuItem>
          ))}
        </Select>
      </span>
      <span className="word-choice">
        <label id="capo-label" className="word-name">
          Capo{' '}
        </label>
        <Select
          size="small"
          variant="standard"
          labelId="capo-label"
          value={capo}
          onChange={(event) => onCapo(Number(event.target.value))}
        >
          <MenuItem value={0}>none</MenuItem>
          {Array.from({ length: MOST_CAPO }, (_, at) => (
            <MenuItem key={at + 1} value={at + 1}>
              {at + 1}, played in {keyInWords(keyAbove(keyNow, -(at + 1)))}
            </MenuItem>
          ))}
        </Select>
      </span>
    </>
  )
})
