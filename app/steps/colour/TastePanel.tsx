import Button from '@mui/material/Button'
import Slider from '@mui/material/Slider'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { ruleInWords } from '../../../core/reharm/ruleNames'
import { SCHOOLS, SCHOOL_NAMES } from '../../../core/reharm/schools'
import { LEANINGS, type Leaning } from '../../../core/reharm/taste'
import { usePlayerSettings } from '../../services/player/PlayerContext'

const SLIDERS = [
  { name: 'far', label: 'How far out', low: 'near home', high: 'far out' },
  { name: 'busy', label: 'How busy', low: 'few chords', high: 'many' },
  { name: 'bassSteps', label: 'Bass by step', low: 'no matter', high: 'as often as it can' },
] as const

const DEPTHS = [
  [1, 'One rule'],
  [2, 'Two'],
  [3, 'Three'],
] as const

/**
 * What the player likes, which orders what is offered and weighs in the search; and what was
 * counted of what they kept.
 */
export function TastePanel() {
  const {
    settings: { taste, depth },
    liking,
    change,
    forget,
  } = usePlayerSettings()
  const counted = Object.entries(liking).sort((a, b) => b[1] - a[1])
  return (
    <section className="panel" aria-label="Taste">
      <div className="taste-sliders">
        {SLIDERS.map(({ name, label, low, high }) => (
          <div key={name}>
            <span id={`taste-${name}`}>{label}</span>
            <Slider
              aria-labelledby={`taste-${name}`}
              size="small"
              value={taste[name]}
              min={0}
              max={1}
              step={0.05}
              marks={[
                { value: 0, label: low },
                { value: 1, label: high },
              ]}
              onChange={(_, value) => change({ taste: { ...taste, [name]: value as number } })}
            />
          </div>
        ))}
        <div>
          <span id="taste-depth">Rules on top of one another</span>
          <ToggleButtonGroup
            exclusive
            size="small"
            value={depth}
            aria-labelledby="taste-depth"
            onChange={(_, next: 1 | 2 | 3 | null) => next && change({ depth: next })}
          >
            {DEPTHS.map(([value, label]) => (
              <ToggleButton key={value} value={value}>
                {label}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </div>
      </div>
      <div className="taste-schools">
        {SCHOOL_NAMES.map((school) => (
          <div key={school} className="taste-school">
            <b>{school}</b>
            <ToggleButtonGroup
              exclusive
              size="small"
              value={taste.schools[school]}
              aria-label={school}
              onChange={(_, next: Leaning | null) =>
                next && change({ taste: { ...taste, schools: { ...taste.schools, [school]: next } } })
              }
            >
              {LEANINGS.map((leaning) => (
                <ToggleButton key={leaning} value={leaning}>
                  {leaning}
                </ToggleButton>
              ))}
            </ToggleButtonGroup>
            <span className="quiet">{SCHOOLS[school]}</span>
          </div>
        ))}
      </div>
      <p className="quiet">
        {counted.length === 0
          ? 'Nothing is counted yet: each change you keep by hand raises others of its rule a little, five times at most.'
          : 'Kept by hand, and so raised a little in the lists: '}
        {counted.map(([rule, times]) => (
          <span key={rule} className="counted">
            {ruleInWords(rule)} {times}×{' '}
            <button
              type="button"
              className="plain-button"
              aria-label={`Forget ${ruleInWords(rule)}`}
              onClick={() => forget(rule)}
            >
              forget
            </button>
          </span>
        ))}
        {counted.length > 0 && (
          <Button size="small" onClick={() => forget()}>
            Forget all
          </Button>
        )}
      </p>
    </section>
  )
}
