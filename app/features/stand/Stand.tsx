import { useEffect, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { SOUND } from '../../services/sound/store'
import { usePlaying } from '../../services/sound/SoundContext'
import { useSteady } from '../../services/words/steady'
import { PageView } from '../paper/PageView'
import { ownChoice, ownNameOf } from '../paper/ownLayouts'
import {
  keepHere,
  keptHere,
  SIZES,
  USUAL,
  windowAsked,
  type StandKept,
  type StandTune,
  type StandWindow,
} from './asked'
import { SHOWN, STAND_LAYOUTS } from './shown'
import { useAwake } from './useAwake'
import { useStandPages } from './useStandPages'

interface Props {
  name: string
  tunes: readonly StandTune[]
  at: number
  back: string
  /** Names of layouts that its tunes keep. */
  layouts: readonly string[]
}

/** A tap on this share of the width at the left goes back. */
const BACK_SHARE = 0.3

/** What turns pages: keys of a keyboard, and those that foot switches type. */
const TURNS: Readonly<Record<string, 'on' | 'back' | 'next' | 'before' | 'first'>> = {
  ' ': 'on',
  PageDown: 'on',
  ArrowRight: 'on',
  ArrowDown: 'on',
  Enter: 'on',
  PageUp: 'back',
  ArrowLeft: 'back',
  ArrowUp: 'back',
  Backspace: 'back',
  n: 'next',
  p: 'before',
  Home: 'first',
}

/** Layouts to choose from, the one that was chosen last among them: it may be another tune's. */
const choicesOf = (layouts: readonly string[], shown: string): string[] => [
  ...new Set([...layouts, ...(ownNameOf(shown) === null ? [] : [ownNameOf(shown)!])]),
]

/** Pages of a tune, or of a whole set, turned by key, foot switch or tap. */
export function Stand({ name, tunes, at: begin, back, layouts }: Props) {
  const navigate = useNavigate()
  const [kept, setKept] = useState(USUAL)
  const [window_, setWindow] = useState<{ width: number; height: number } | null>(null)
  const [place, setPlace] = useState({ tune: Math.min(begin, Math.max(0, tunes.length - 1)), page: 0 })
  const awake = useAwake()
  const page = useRef<HTMLDivElement>(null)
  const measured = useRef(false)
  useEffect(() => {
    setKept(keptHere())
    let soon: ReturnType<typeof setTimeout> | undefined
    const area = page.current!
    const watch = new ResizeObserver(() => {
      clearTimeout(soon)
      soon = setTimeout(
        () => setWindow({ width: area.clientWidth, height: area.clientHeight }),
        measured.current ? SETTLED_MS : 0,
      )
      measured.current = true
    })
    watch.observe(area)
    return () => {
      clearTimeout(soon)
      watch.disconnect()
    }
  }, [])
  const set = (change: Partial<StandKept>) => {
    const next = { ...kept, ...change }
    setKept(next)
    keepHere(next)
  }
  // One request serves the window as it is and turned: which way it stood first is remembered.
  const asked = useRef<StandWindow | null>(null)
  const wanted = windowAsked(window_, kept, asked.current)
  asked.current = wanted
  const { loaded, fault, waiting } = useStandPages(tunes, place.tune, wanted)
  const here = loaded.get(place.tune)
  const isTurned =
    wanted !== null && window_ !== null && wanted.width > wanted.height !== window_.width > window_.height
  const pages = (isTurned ? here?.turned : here?.pages) ?? []
  const shownPage = Math.min(place.page, Math.max(0, pages.length - 1))
  const pagesOfTune = (index: number) => {
    const one = loaded.get(index)
    return (isTurned ? one?.turned : one?.pages)?.length ?? 1
  }
  const goTo = (tune: number, to = 0) => {
    if (tune >= 0 && tune < tunes.length) setPlace({ tune, page: to })
  }
  const turn = (way: 'on' | 'back' | 'next' | 'before' | 'first') => {
    switch (way) {
      case 'on':
        return shownPage + 1 < pages.length ? goTo(place.tune, shownPage + 1) : goTo(place.tune + 1)
      case 'back':
        return shownPage > 0
          ? goTo(place.tune, shownPage - 1)
          : goTo(place.tune - 1, pagesOfTune(place.tune - 1) - 1)
      case 'next':
        return goTo(place.tune + 1)
      case 'before':
        return goTo(place.tune - 1)
      case 'first':
        return goTo(place.tune)
    }
  }
  const { playing, playsOn, play, stop } = usePlayOn(
    () => here?.heard ?? null,
    () => place.tune + 1 < tunes.length,
    () => goTo(place.tune + 1),
  )
  useEffect(() => {
    if (playsOn && here && !playing) play()
    // oxlint-disable-next-line react/exhaustive-deps -- begins when the next tune is there
  }, [place.tune, here])
  const onKey = useSteady((event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return
    if (event.target instanceof HTMLSelectElement) return
    const onButton = event.target instanceof HTMLButtonElement || event.target instanceof HTMLAnchorElement
    if (onButton && (event.key === 'Enter' || event.key === ' ')) return
    const way = TURNS[event.key.length === 1 ? event.key.toLowerCase() : event.key]
    if (way) turn(way)
    else if (event.key === 'Escape') void navigate(back)
    else if (event.key === 'd') set({ light: !kept.light })
    else if (event.key === 's') {
      if (playing) stop()
      else play()
    } else if (event.key === '+' || event.key === '-') resize(event.key === '+' ? 1 : -1)
    else return
    event.preventDefault()
  })
  useEffect(() => {
    addEventListener('keydown', onKey)
    return () => removeEventListener('keydown', onKey)
  }, [onKey])
  const resize = (by: 1 | -1) => {
    if (SIZES[kept.size + by] !== undefined) set({ size: kept.size + by })
  }
  const tune = tunes[place.tune]
  const next = tunes[place.tune + 1]
  const toPlay = tunes.length > 1 ? 'Play the set' : 'Play'
  return (
    <main className={`stand${kept.light ? ' light' : ''}`}>
      <h1 className="visually-hidden">{tune ? `${tune.title}, on the stand` : name}</h1>
      <div
        className="stand-page"
        ref={page}
        onClick={(event) => {
          const { left, width } = event.currentTarget.getBoundingClientRect()
          turn(event.clientX - left < width * BACK_SHARE ? 'back' : 'on')
        }}
      >
        {tunes.length === 0 && <p className="stand-words">There is no tune in this set.</p>}
        {tune && !here && !fault && (
          <p className="stand-words" role="status">
            Preparing {tune.title}
          </p>
        )}
        {fault && !here && (
          <p className="stand-words" role="alert">
            {fault}
          </p>
        )}
        {pages[shownPage] && (
          <PageView page={pages[shownPage]} number={shownPage + 1} of={pages.length} black={false} />
        )}
      </div>
      <p className="visually-hidden" aria-live="polite">
        {tune && `${tune.title}, page ${shownPage + 1} of ${Math.max(1, pages.length)}`}
      </p>
      <nav className="stand-strip" aria-label="Stand">
        <Link to={back}>Leave</Link>
        <span className="stand-place" role="group" aria-label="Place">
          {tunes.length > 1 && `${place.tune + 1}/${tunes.length} · `}page {shownPage + 1}/
          {Math.max(1, pages.length)}
          {next && <span className="stand-next"> · next: {next.title}</span>}
          {waiting > 0 && loaded.size > 0 && tunes.length > 1 && ` · preparing ${waiting}`}
          {!awake && (
            <span className="stand-next" title="This browser does not keep the screen awake">
              {' '}
              · screen may sleep
            </span>
          )}
        </span>
        <label>
          <span className="visually-hidden">What is shown</span>
          <select value={kept.shown} onChange={(event) => set({ shown: event.target.value })}>
            {SHOWN.map((one) => (
              <option key={one} value={one}>
                {STAND_LAYOUTS[one].label}
              </option>
            ))}
            {choicesOf(layouts, kept.shown).map((own) => (
              <option key={own} value={ownChoice(own)}>
                {own}
              </option>
            ))}
          </select>
        </label>
        <button type="button" onClick={() => resize(-1)} disabled={kept.size === 0} aria-label="Smaller">
          A−
        </button>
        <button
          type="button"
          onClick={() => resize(1)}
          disabled={kept.size === SIZES.length - 1}
          aria-label="Larger"
        >
          A+
        </button>
        <button type="button" onClick={playing ? stop : play} disabled={!here}>
          {playing ? 'Stop' : toPlay}
        </button>
        <button type="button" onClick={() => set({ light: !kept.light })}>
          {kept.light ? 'Dusk' : 'Paper'}
        </button>
        <button type="button" className="stand-turn" onClick={() => turn('back')} aria-label="Page back">
          ‹
        </button>
        <button type="button" className="stand-turn" onClick={() => turn('on')} aria-label="Page on">
          ›
        </button>
      </nav>
    </main>
  )
}
/** A window that is being drawn larger is measured when it has come to rest. */
const SETTLED_MS = 250

/** Plays what is shown; at its end the next tune, until the set is through or it is stopped. */
function usePlayOn(
  heard: () => { schedule: Parameters<typeof SOUND.play>[0]; tempo: number } | null,
  hasNext: () => boolean,
  goOn: () => void,
) {
  const { playing } = usePlaying()
  const [playsOn, setPlaysOn] = useState(false)
  const played = useRef(false)
  const end = useSteady(() => {
    if (!playsOn) return
    if (hasNext()) goOn()
    else setPlaysOn(false)
  })
  useEffect(() => {
    if (played.current && !playing) end()
    played.current = playing
  }, [playing, end])
  useEffect(() => SOUND.stop, [])
  const play = () => {
    const now = heard()
    if (!now) return
    setPlaysOn(true)
    void SOUND.play(now.schedule, now.tempo)
  }
  const stop = () => {
    setPlaysOn(false)
    played.current = false
    SOUND.stop()
  }
  return { playing, playsOn, play, stop }
}
