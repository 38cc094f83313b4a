import { faultWords } from '../../../core/result'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useEffect, useRef, useState, type FormEvent } from 'react'
import { useNavigate } from 'react-router'
import { jsonAnswer } from '../../services/forms/jsonAnswer'
import { UNREACHABLE } from '../../services/forms/unlessUnreachable'
import { usePlayerSettings } from '../../services/player/PlayerContext'
import { SOUND } from '../../services/sound/soundStore'
import { usePlaying } from '../../services/sound/SoundContext'
import type { TuneHeard } from '../../services/sound/tuneHeard'
import './first.css'

/** A tune of the book to be heard plain and new. */
export interface FirstHeard {
  id: string
  title: string
}

/**
 * The first two of four steps, for who opens a book for the first time: what it is about, and a
 * chart of their own. The others are told where they are done.
 */
export function FirstSteps({ heard }: { heard: FirstHeard | null }) {
  const { settings, change } = usePlayerSettings()
  if (settings.firstSteps !== 'offered') return null
  return (
    <section className="first-steps" aria-labelledby="first-steps">
      <div className="first-head">
        <h2 id="first-steps">From plain chords to a richer version, in four steps</h2>
        <Button size="small" onClick={() => change({ firstSteps: 'away' })}>
          Skip the first steps
        </Button>
      </div>
      <ol>
        {heard && (
          <li>
            <h3>Hear it</h3>
            <p>
              Eight bars of “{heard.title}”: the plain chords, then what the guitar makes of them, on the same
              band.
            </p>
            <HearBoth tune={heard.id} />
          </li>
        )}
        <li>
          <h3>Bring your own chart</h3>
          <OwnChart onMade={() => change({ firstSteps: 'colour' })} />
        </li>
        <li className="first-later">
          <h3>Colour it</h3>
          <p>One control goes from plain to ninths and beyond.</p>
        </li>
        <li className="first-later">
          <h3>Put it under your fingers</h3>
          <p>Grips for every chord, joined so that the voices hardly move.</p>
        </li>
      </ol>
    </section>
  )
}

/**
 * One touch plays both. What is played is fetched before it is wanted, so that the touch is heard
 * at once.
 */
function HearBoth({ tune }: { tune: string }) {
  const { playing, trouble } = usePlaying()
  const [asked, setAsked] = useState(false)
  const [fault, setFault] = useState('')
  const heard = useRef<Promise<TuneHeard>>(undefined)
  const fetched = () => {
    heard.current ??= fetch(`/first?tune=${tune}`).then(async (response) => {
      const answer = await jsonAnswer<TuneHeard>(response)
      if (!('schedule' in answer)) throw new Error(answer.message)
      return answer
    })
    // A failure is told when it is wanted, and asked for anew then.
    heard.current.catch(() => (heard.current = undefined))
    return heard.current
  }
  useEffect(() => {
    void fetched().catch(() => undefined)
    return () => SOUND.stop()
    // oxlint-disable-next-line react/exhaustive-deps -- once a tune
  }, [tune])
  const play = async () => {
    setAsked(true)
    setFault('')
    try {
      const { schedule, tempo } = await fetched()
      await SOUND.play(schedule, tempo)
    } catch (error) {
      setFault(error instanceof TypeError ? UNHEARD : faultWords(error))
    }
    setAsked(false)
  }
  const toPlay = asked ? 'Preparing…' : 'Play plain, then new'
  return (
    <p className="first-hear">
      <Button
        variant="contained"
        color="primary"
        onClick={() => (playing ? SOUND.stop() : void play())}
        disabled={asked && !playing}
      >
        {playing ? 'Stop' : toPlay}
      </Button>
      <Sounding />
      {(fault || trouble) && <span role="alert">{fault || trouble}</span>}
    </p>
  )
}

/** Which of the two is heard now. */
function Sounding() {
  const { playing } = usePlaying()
  const [version, setVersion] = useState<'plain' | 'new' | null>(null)
  useEffect(
    () =>
      SOUND.subscribe(() => {
        const now = (['plain', 'new'] as const).find((one) => SOUND.soundingIn(one) !== null)
        if (now) setVersion(now)
      }),
    [],
  )
  if (!playing || version === null) return null
  return <b role="status">{version === 'plain' ? 'Now: the plain chords' : 'Now: the new ones'}</b>
}

const UNHEARD = 'The server does not answer: try again when it is back.'

function OwnChart({ onMade }: { onMade: () => void }) {
  const navigate = useNavigate()
  const [said, setSaid] = useState('')
  const [sending, setSending] = useState(false)
  const send = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const fields = new FormData(event.currentTarget)
    setSending(true)
    setSaid('')
    try {
      const answer = await fetch('/first', {
        method: 'POST',
        body: new URLSearchParams([...fields] as [string, string][]),
      })
      const told = await jsonAnswer<{ tune: string }>(answer)
      if ('tune' in told) {
        onMade()
        await navigate(`/tunes/${told.tune}/colour`)
      } else setSaid(told.message)
    } catch {
      setSaid(UNREACHABLE)
    }
    setSending(false)
  }
  return (
    <form className="first-own" onSubmit={(event) => void send(event)}>
      <TextField
        name="text"
        label="Its chords, in bars"
        placeholder="| Dm7 | G7 | C | Am |"
        multiline
        minRows={2}
        maxRows={6}
        required
        size="small"
        slotProps={{ htmlInput: { spellCheck: false, autoCapitalize: 'off' }, inputLabel: { shrink: true } }}
      />
      <TextField
        name="title"
        label="Its title"
        defaultValue="My first tune"
        required
        size="small"
        slotProps={{ htmlInput: { maxLength: 120 } }}
      />
      <Button type="submit" variant="contained" color="primary" disabled={sending}>
        Use this chart
      </Button>
      {said && (
        <p className="notice" role="alert">
          {said}
        </p>
      )}
    </form>
  )
}
