import { firstOf, lastOf } from '../../../core/lists'
import { memo } from 'react'
import { MOST_TO_HOLD } from '../words/handWords'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { VOICING_FAMILIES, type Family } from '../../../core/voicing/family'
import { isMovable } from '../../../core/voicing/related'
import { pitchAt, pitchName } from '../../../core/pitch/note'
import type { Voicing } from '../../../core/voicing/voicing'
import { engraved } from '../../../core/chord/engraved'

/** What grips are looked for by; empty where it does not matter. */
export interface GripFilter {
  family: Family | ''
  /** The highest note, as a degree. */
  top: string
  /** Sounding strings by their numbers, lowest first: `5432`. */
  strings: string
  /** Most effort. */
  effort: string
  shape: '' | 'movable' | 'open'
  /** Degrees from the lowest note up: `1 7 3 5`. */
  degrees: string
}
export const NO_FILTER: GripFilter = { family: '', top: '', strings: '', effort: '', shape: '', degrees: '' }

const byPitch = (voicing: Voicing) => [...voicing.strings].sort((a, b) => a.midi - b.midi)
export const topOf = (voicing: Voicing): string => lastOf(byPitch(voicing)).degree
export const stringSetOf = (voicing: Voicing): string =>
  voicing.strings.map(({ string }) => voicing.frets.length - string).join('')
export const degreesLowToHigh = (voicing: Voicing): string =>
  byPitch(voicing)
    .map(({ degree }) => degree)
    .join(' ')
export const notesInWords = (voicing: Voicing): string =>
  voicing.strings
    .map(({ midi, note }) => {
      const name = pitchName(pitchAt(midi, note))
      return firstOf(name) + name.slice(1).replace(/b/g, '♭').replace(/#/g, '♯')
    })
    .join(' ')

/** Whether a grip has everything that is looked for. */
export function passesFilter(
  voicing: Voicing,
  { family, top, strings, effort, shape, degrees }: GripFilter,
): boolean {
  const wanted = degrees.trim().split(/\s+/).filter(Boolean).join(' ')
  return (
    (family === '' || voicing.families.includes(family)) &&
    (top === '' || topOf(voicing) === top) &&
    (strings === '' || stringSetOf(voicing) === strings) &&
    (effort === '' || voicing.fingering.difficulty <= Number(effort)) &&
    (shape === '' || isMovable(voicing) === (shape === 'movable')) &&
    (wanted === '' || degreesLowToHigh(voicing) === wanted)
  )
}

interface Props {
  /** What there is to choose from. */
  grips: readonly Voicing[]
  filter: GripFilter
  onFilter: (filter: GripFilter) => void
}

/** Fields to look for grips by, each with what there is. */
export const GripFilters = memo(function GripFilters({ grips, filter, onFilter }: Props) {
  const set = (changed: Partial<GripFilter>) => onFilter({ ...filter, ...changed })
  const there = (of: (voicing: Voicing) => string) =>
    [...new Set(grips.map(of))].sort((a, b) => b.length - a.length || a.localeCompare(b))
  const families = VOICING_FAMILIES.filter((family) => grips.some((one) => one.families.includes(family)))
  const choice = (name: keyof GripFilter, label: string, options: readonly (readonly [string, string])[]) => (
    <TextField
      select
      size="small"
      label={label}
      value={options.some(([value]) => value === filter[name]) ? filter[name] : ''}
      onChange={(event) => set({ [name]: event.target.value })}
      className="grip-filter"
    >
      <MenuItem value="">any</MenuItem>
      {options.map(([value, words]) => (
        <MenuItem key={value} value={value}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  )
  return (
    <div className="grip-filters">
      {choice(
        'family',
        'Family',
        families.map((family) => [family, family]),
      )}
      {choice(
        'top',
        'On top',
        there(topOf).map((degree) => [degree, engraved(degree)]),
      )}
      {choice(
        'strings',
        'Strings',
        there(stringSetOf).map((set) => [set, [...set].join(' ')]),
      )}
      {choice('effort', 'At most', MOST_TO_HOLD)}
      {choice('shape', 'Shape', [
        ['movable', 'movable'],
        ['open', 'with open strings'],
      ])}
      <TextField
        size="small"
        label="Degrees, low to high"
        placeholder="1 7 3 5"
        value={filter.degrees}
        onChange={(event) => set({ degrees: event.target.value })}
        className="grip-filter"
      />
    </div>
  )
})
