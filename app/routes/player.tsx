import Button from '@mui/material/Button'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import Slider from '@mui/material/Slider'
import Switch from '@mui/material/Switch'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { ANSWERS, REACH_RANGE_MM, reachFrom, STRETCHES, type ReachAnswer } from '../../core/neck/calibration'
import { FINGER_NAMES, type Finger } from '../../core/neck/hand'
import { reachMm } from '../../core/neck/instrument'
import { INSTRUMENTS, SCALE_LENGTH_RANGE_MM } from '../../core/neck/instruments'
import { TastePanel } from '../steps/colour/TastePanel'
import { usePlayerSettings } from '../services/player/PlayerContext'
import { instrumentSettings, type PlayerSettings } from '../../core/player/playerSettings'
import { useNumerals } from '../services/notation/numeralCookie'
import { NetworkSection } from '../features/network/NetworkSection'
import { PageHead } from '../theme/PageHead'
import type { Route } from './+types/player'

export const meta: Route.MetaFunction = () => [{ title: 'Player · Yellow Heron' }]

export function loader({ context }: Route.LoaderArgs) {
  // In development there is no server of ours that could say it.
  return { onNetwork: context.onNetwork ?? null }
}

const FINGERS: readonly Finger[] = [1, 2, 3, 4]

/** The instrument, the hand, the schools, and what to mind: once for all tunes. */
export default function PlayerPage({ loaderData }: Route.ComponentProps) {
  return (
    <main className="page player">
      <PageHead title="Player">
        <KeptWords />
      </PageHead>
      <InstrumentSection />
      <HandSection />
      <SchoolsSection />
      <FirstStepsSection />
      <NetworkSection onNetwork={loaderData.onNetwork} />
      <section aria-labelledby="cautions">
        <h2 id="cautions">The player’s body</h2>
        <p>
          Stop when it hurts. Wide stretches and hard barres, again and again, hurt hands: rest, go up the
          neck where frets are closer, or take the easier grip that is offered beside each. When pain stays,
          see a clinician.
        </p>
      </section>
    </main>
  )
}

function FirstStepsSection() {
  const { settings, change } = usePlayerSettings()
  const navigate = useNavigate()
  return (
    <section aria-labelledby="first-again">
      <h2 id="first-again">First steps</h2>
      <p>
        {settings.firstSteps === 'away'
          ? 'Four steps from plain chords to a richer version, told where each is done.'
          : 'They are shown now.'}
      </p>
      <div className="settings-row">
        <Button
          size="small"
          onClick={() => {
            change({ firstSteps: 'offered' })
            void navigate('/')
          }}
        >
          {settings.firstSteps === 'away' ? 'Show the first steps' : 'Begin them again'}
        </Button>
        {settings.firstSteps !== 'away' && (
          <Button size="small" onClick={() => change({ firstSteps: 'away' })}>
            Put them away
          </Button>
        )}
      </div>
    </section>
  )
}

/** Whether the settings are in the database. */
function KeptWords() {
  const { keeping } = usePlayerSettings()
  if (typeof keeping === 'object')
    return (
      <span className="save-status fault" role="alert">
        Not taken: {keeping.refused}
      </span>
    )
  return (
    <span className="save-status" role="status">
      {
        {
          saved: 'Saved',
          saving: 'Saving…',
          waiting: 'Not saved yet: the server does not answer. Kept in this browser.',
        }[keeping]
      }
    </span>
  )
}

function InstrumentSection() {
  const {
    settings: { instrument, leftHanded },
    change,
  } = usePlayerSettings()
  const [tuning, setTuning] = useState(instrument.tuning.join(' '))
  const [trouble, setTrouble] = useState('')
  const preset =
    Object.entries(INSTRUMENTS).find(
      ([, one]) =>
        one.tuning.join(' ') === instrument.tuning.join(' ') &&
        one.scaleLengthMm === instrument.scaleLengthMm,
    )?.[0] ?? 'own'
  const set = (changed: Partial<PlayerSettings['instrument']>) => {
    const next = instrumentSettings.safeParse({ ...instrument, ...changed })
    if (next.success) change({ instrument: next.data })
    const issue = next.error?.issues[0]
    setTrouble(issue ? troubleInWords(issue.path, changed.tuning ?? [], issue.message) : '')
  }
  // What is wrong is said at once; a tuning is taken when it is whole: five strings on the way to
  // six are no instrument of their own.
  const strings = useRef<HTMLInputElement>(null)
  const pause = useRef<ReturnType<typeof setTimeout>>(undefined)
  const stringsIn = (text: string) => text.trim().split(/[\s,]+/)
  const takeTuning = (text: string) => {
    clearTimeout(pause.current)
    if (text.trim() !== instrument.tuning.join(' ')) set({ tuning: stringsIn(text), name: 'My own tuning' })
  }
  const typeTuning = (text: string) => {
    setTuning(text)
    clearTimeout(pause.current)
    const issue = instrumentSettings.safeParse({ ...instrument, tuning: stringsIn(text) }).error?.issues[0]
    setTrouble(issue ? troubleInWords(issue.path, stringsIn(text), issue.message) : '')
    if (!issue) pause.current = setTimeout(() => takeTuning(text), TYPING_PAUSE_MS)
  }
  return (
    <section aria-labelledby="instrument">
      <h2 id="instrument">Instrument</h2>
      <div className="settings-row">
        <TextField
          select
          size="small"
          label="Instrument"
          value={preset}
          sx={{ minWidth: 220 }}
          onChange={(event) => {
            const one = INSTRUMENTS[event.target.value]
            // A tuning of one's own begins with the strings there are.
            if (!one) {
              set({ name: 'My own tuning' })
              setTimeout(() => strings.current?.select())
              return
            }
            setTuning(one.tuning.join(' '))
            set({ ...one, tuning: [...one.tuning] })
          }}
        >
          {Object.entries(INSTRUMENTS).map(([id, { name }]) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
          <MenuItem value="own">My own tuning: type the open strings</MenuItem>
        </TextField>
        <TextField
          size="small"
          label="Open strings, lowest first"
          inputRef={strings}
          value={tuning}
          error={trouble !== ''}
          sx={{ minWidth: 260 }}
          onChange={(event) => typeTuning(event.target.value)}
          onBlur={() => takeTuning(tuning)}
          onKeyDown={(event) => event.key === 'Enter' && takeTuning(tuning)}
        />
        <NumberField
          label="Scale length, mm"
          value={instrument.scaleLengthMm}
          range={SCALE_LENGTH_RANGE_MM}
          onValue={(scaleLengthMm) => set({ scaleLengthMm })}
        />
        <NumberField
          label="Frets"
          value={instrument.frets}
          range={[5, 36]}
          onValue={(frets) => set({ frets, cutaway: Math.min(frets, instrument.cutaway) })}
        />
        <NumberField
          label="Highest fret at ease"
          value={instrument.cutaway}
          range={[5, instrument.frets]}
          onValue={(cutaway) => set({ cutaway })}
        />
        <p className="quiet">
          Melodies, the grip book and a position you choose go up to the highest fret at ease. Other lines,
          and the grips offered for a chord, stay within twelve frets of the nut or capo.
        </p>
      </div>
      {trouble && (
        <p className="fault" role="alert">
          {trouble} Accepted: 4 to 8 pitches such as E2 A2 D3 G3 B3 E4, the lowest string first. Until then{' '}
          {instrument.tuning.join(' ')} holds.
        </p>
      )}
      <FormControlLabel
        control={<Switch checked={leftHanded} onChange={(_, next) => change({ leftHanded: next })} />}
        label="Left-handed: grips and necks mirrored"
      />
    </section>
  )
}

/** A tuning that could go on is taken when typing has paused so long. */
const TYPING_PAUSE_MS = 900

/** Which string is wrong, by the number players give it. */
function troubleInWords(path: readonly PropertyKey[], tuning: readonly string[], message: string): string {
  const at = path.find((step): step is number => typeof step === 'number')
  if (at === undefined)
    return path[0] === 'tuning'
      ? `${tuning.length} ${tuning.length === 1 ? 'string is' : 'strings are'} named.`
      : `${message}.`
  return `“${tuning[at] ?? ''}”, string ${tuning.length - at}, is no pitch.`
}

/**
 * What is typed is taken when the field is left or Enter is pressed; out of range it stays as
 * typed, with what is accepted.
 */
function NumberField({
  label,
  value,
  range: [low, high],
  onValue,
}: {
  label: string
  value: number
  range: readonly [number, number]
  onValue: (value: number) => void
}) {
  const [typed, setTyped] = useState<string | null>(null)
  const number = Number(typed ?? value)
  const wrong =
    !Number.isFinite(number) || number < low || number > high || (typed !== null && typed.trim() === '')
  const take = () => {
    if (typed === null || wrong) return
    setTyped(null)
    if (number !== value) onValue(number)
  }
  return (
    <TextField
      size="small"
      type="number"
      label={label}
      helperText={wrong ? `${low} to ${high}; ${value} still holds` : ' '}
      value={typed ?? value}
      error={wrong}
      sx={{ width: 170 }}
      slotProps={{ htmlInput: { min: low, max: high, 'aria-label': label } }}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
    />
  )
}

const STATES = [
  ['fine', 'fine'],
  ['weak', 'tires'],
  ['missing', 'not used'],
] as const

function HandSection() {
  const {
    settings: { hand, instrument },
    change,
  } = usePlayerSettings()
  const [answers, setAnswers] = useState<(ReachAnswer | null)[]>(STRETCHES.map(() => null))
  const set = (changed: Partial<PlayerSettings['hand']>) => change({ hand: { ...hand, ...changed } })
  const answer = (at: number, said: ReachAnswer) => {
    const next = answers.map((one, index) => (index === at ? said : one))
    setAnswers(next)
    if (next.every((one) => one !== null)) set({ reachMm: reachFrom(next, instrument.scaleLengthMm) })
  }
  const stateOf = (finger: Finger) => {
    if (hand.missing.includes(finger)) return 'missing'
    if (hand.weak.includes(finger)) return 'weak'
    return 'fine'
  }
  return (
    <section aria-labelledby="hand">
      <h2 id="hand">Hand</h2>
      <p>
        Try these three stretches, index finger to little finger, on a middle string. Take your time, and stop
        at the first that is too wide.
      </p>
      <ol className="stretches">
        {STRETCHES.map(({ from, to }, at) => (
          <li key={from}>
            <span>
              Frets {from} to {to}{' '}
              <span className="quiet">{Math.round(reachMm(from, to, instrument.scaleLengthMm))} mm</span>
            </span>
            <ToggleButtonGroup
              exclusive
              size="small"
              value={answers[at]}
              aria-label={`Frets ${from} to ${to}`}
              onChange={(_, said: ReachAnswer | null) => said && answer(at, said)}
            >
              {ANSWERS.map((one) => (
                <ToggleButton key={one} value={one}>
                  {one === 'just' ? 'just goes' : one}
                </ToggleButton>
              ))}
            </ToggleButtonGroup>
          </li>
        ))}
      </ol>
      <div className="reach-slider">
        <span id="reach-label">Comfortable reach: {Math.round(hand.reachMm)} mm</span>
        <Slider
          aria-labelledby="reach-label"
          value={hand.reachMm}
          min={REACH_RANGE_MM[0]}
          max={REACH_RANGE_MM[1]}
          onChange={(_, next) => set({ reachMm: next as number })}
        />
      </div>
      <div className="settings-row">
        <FormControlLabel
          control={<Switch checked={hand.barre} onChange={(_, barre) => set({ barre })} />}
          label="Barres"
        />
        <FormControlLabel
          control={<Switch checked={hand.thumb} onChange={(_, thumb) => set({ thumb })} />}
          label="Thumb over the neck"
        />
        <FormControlLabel
          control={<Switch checked={hand.innerMutes} onChange={(_, innerMutes) => set({ innerMutes })} />}
          label="Muted strings between sounding ones"
        />
      </div>
      <div className="settings-row">
        {FINGERS.map((finger) => (
          <div key={finger} className="finger-state">
            <span>{FINGER_NAMES[finger]}</span>
            <ToggleButtonGroup
              exclusive
              size="small"
              value={stateOf(finger)}
              aria-label={FINGER_NAMES[finger]}
              onChange={(_, state: 'fine' | 'weak' | 'missing' | null) => {
                if (!state || (state === 'missing' && hand.missing.length >= 3)) return
                const without = (list: readonly Finger[]) => list.filter((one) => one !== finger)
                set({
                  missing: state === 'missing' ? [...without(hand.missing), finger] : without(hand.missing),
                  weak: state === 'weak' ? [...without(hand.weak), finger] : without(hand.weak),
                })
              }}
            >
              {STATES.map(([state, label]) => (
                <ToggleButton key={state} value={state}>
                  {label}
                </ToggleButton>
              ))}
            </ToggleButtonGroup>
          </div>
        ))}
      </div>
      <p className="quiet">Every grip that is shown, and every line, keeps to this hand.</p>
    </section>
  )
}

function SchoolsSection() {
  const { school, choose } = useNumerals()
  return (
    <section aria-labelledby="schools">
      <h2 id="schools">Schools and taste</h2>
      <div className="settings-row">
        <span>Numerals</span>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={school}
          aria-label="Numerals"
          onChange={(_, next: 'case' | 'capitals' | null) => next && choose(next)}
        >
          <ToggleButton value="case">ii7 V7: case shows quality</ToggleButton>
          <ToggleButton value="capitals">IIm7 V7: quality written out</ToggleButton>
        </ToggleButtonGroup>
      </div>
      <TastePanel />
      <Button component={Link} to="/">
        Back to the songbook
      </Button>
    </section>
  )
}
