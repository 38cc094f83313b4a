import { useEffect, useRef, useState, type RefObject } from 'react'
import { Link, useNavigate } from 'react-router'
import { SOUND } from '../../services/sound/soundStore'
import { usePlaying } from '../../services/sound/SoundContext'
import { useStableCallback } from '../../services/words/stable'
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
} from './standAddress'
import { SHOWN_ON_STAND, STAND_LAYOUTS } from './shown'
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
const TURNS: Readonly<Record<string, Turn>> = {
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
  const [place, setPlace] = useState({ tune: Math.min(begin, Math.max(0, tunes.length - 1)), page: 0 })
  const page = useRef<HTMLDivElement>(null)
  useEffect(() => setKept(keptHere()), [])
  const window_ = useSizeOf(page)
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
  const turn = (way: Turn) => {
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
  const onKey = useStableCallback((event: KeyboardEvent) => {
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
    } else if (event.key === '+' || event.key === '-') set(resized(kept, event.key === '+' ? 1 : -1))
    else return
    event.preventDefault()
  })
  useEffect(() => {
    addEventListener('keydown', onKey)
    return () => removeEventListener('keydown', onKey)
  }, [onKey])
  const tune = tunes[place.tune]
  const next = tunes[place.tune + 1]
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
      <Strip
        kept={kept}
        onKept={set}
        layouts={layouts}
        place={{ tune: place.tune, of: tunes.length, page: shownPage, pages: pages.length }}
        next={next?.title ?? null}
        waiting={loaded.size > 0 ? waiting : 0}
        back={back}
        play={{ ready: here !== undefined, playing, onPlay: play, onStop: stop }}
        onTurn={turn}
      />
    </main>
  )
}
/** A window that is being drawn larger is measured when it has come to rest. */
const SETTLED_MS = 250

type Turn = 'on' | 'back' | 'next' | 'before' | 'first'

/** Letters a size larger or smaller, where there is one. */
const resized = ({ size }: StandKept, by: 1 | -1): Partial<StandKept> =>
  SIZES[size + by] === undefined ? {} : { size: size + by }

interface StripProps {
  kept: StandKept
  onKept: (change: Partial<StandKept>) => void
  layouts: readonly string[]
  /** Tune and page from 0, and how many there are. */
  place: { tune: number; of: number; page: number; pages: number }
  /** Title of the tune that comes after it. */
  next: string | null
  /** Tunes that are still being prepared. */
  waiting: number
  /** Where leaving leads. */
  back: string
  play: { ready: boolean; playing: boolean; onPlay: () => void; onStop: () => void }
  onTurn: (way: Turn) => void
}

/**
 * What stands under the page: where it is, what is shown, how large, and what turns and plays it.
 */
function Strip({ kept, onKept, layouts, place, next, waiting, back, play, onTurn }: StripProps) {
  const awake = useAwake()
  const toPlay = place.of > 1 ? 'Play the set' : 'Play'
  return (
    <nav className="stand-strip" aria-label="Stand">
      <Link to={back}>Leave</Link>
      <span className="stand-place" role="group" aria-label="Place">
        {place.of > 1 && `${place.tune + 1}/${place.of} · `}page {place.page + 1}/{Math.max(1, place.pages)}
        {next && <span className="stand-next"> · next: {next}</span>}
        {waiting > 0 && place.of > 1 && ` · preparing ${waiting}`}
        {!awake && (
          <span className="stand-next" title="This browser does not keep the screen awake">
            {' '}
            · screen may sleep
          </span>
        )}
      </span>
      <label>
        <span className="visually-hidden">What is shown</span>
        <select value={kept.shown} onChange={(event) => onKept({ shown: event.target.value })}>
          {SHOWN_ON_STAND.map((one) => (
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
      <button
        type="button"
        onClick={() => onKept(resized(kept, -1))}
        disabled={kept.size === 0}
        aria-label="Smaller"
      >
        A−
      </button>
      <button
        type="button"
        onClick={() => onKept(resized(kept, 1))}
        disabled={kept.size === SIZES.length - 1}
        aria-label="Larger"
      >
        A+
      </button>
      <button type="button" onClick={play.playing ? play.onStop : play.onPlay} disabled={!play.ready}>
        {play.playing ? 'Stop' : toPlay}
      </button>
      <button type="button" onClick={() => onKept({ light: !kept.light })}>
        {kept.light ? 'Dusk' : 'Paper'}
      </button>
      <button type="button" className="stand-turn" onClick={() => onTurn('back')} aria-label="Page back">
        ‹
      </button>
      <button type="button" className="stand-turn" onClick={() => onTurn('on')} aria-label="Page on">
        ›
      </button>
    </nav>
  )
}

/** How large an element is drawn, told when it has come to rest; null before it is measured. */
function useSizeOf(box: RefObject<HTMLElement | null>) {
  const [size, setSize] = useState<{ width: number; height: number } | null>(null)
  const measured = useRef(false)
  useEffect(() => {
    let soon: ReturnType<typeof setTimeout> | undefined
    const area = box.current!
    const watch = new ResizeObserver(() => {
      clearTimeout(soon)
      soon = setTimeout(
        () => setSize({ width: area.clientWidth, height: area.clientHeight }),
        measured.current ? SETTLED_MS : 0,
      )
      measured.current = true
    })
    watch.observe(area)
    return () => {
      clearTimeout(soon)
      watch.disconnect()
    }
  }, [box])
  return size
}

/** Plays what is shown; at its end the next tune, until the set is through or it is stopped. */
function usePlayOn(
  heard: () => { schedule: Parameters<typeof SOUND.play>[0]; tempo: number } | null,
  hasNext: () => boolean,
  goOn: () => void,
) {
  const { playing } = usePlaying()
  const [playsOn, setPlaysOn] = useState(false)
  const played = useRef(false)
  const end = useStableCallback(() => {
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
