import { createPortal } from 'react-dom'
import {
  createContext,
  useContext,
  useEffect,
  useId,
  useMemo,
  useRef,
  useState,
  type ReactNode,
  type RefObject,
} from 'react'
import { Roving } from './Roving'
import { useEver } from '../words/stable'

interface OpenWord {
  open: string | null
  setOpen: (id: string | null) => void
  /** Where panels are drawn: under the whole row. */
  host: HTMLElement | null
}
const BarContext = createContext<OpenWord>({ open: null, setOpen: () => undefined, host: null })

/** What the page draws over everything: a touch there closes nothing. */
const OVER_THE_PAGE = '.MuiPopover-root, .MuiDialog-root, .MuiTooltip-popper'

/**
 * The one row of controls of a room. Its words open, one at a time; a touch elsewhere or Escape
 * closes.
 */
export function ControlBar({ label, children }: { label: string; children: ReactNode }) {
  const [open, setOpen] = useState<string | null>(null)
  const box = useRef<HTMLDivElement>(null)
  const [host, setHost] = useState<HTMLElement | null>(null)
  const [more, setMore] = useMore(box)
  useEffect(() => {
    if (open === null) return
    const touch = (event: PointerEvent) => {
      const target = event.target as Element
      if (!box.current?.contains(target) && !target.closest(OVER_THE_PAGE)) setOpen(null)
    }
    const press = (event: KeyboardEvent) => {
      if (event.key !== 'Escape' || (event.target as Element).closest?.(OVER_THE_PAGE)) return
      event.preventDefault()
      event.stopPropagation()
      setOpen(null)
      document.getElementById(open)?.focus()
    }
    window.addEventListener('pointerdown', touch, true)
    window.addEventListener('keydown', press, true)
    return () => {
      window.removeEventListener('pointerdown', touch, true)
      window.removeEventListener('keydown', press, true)
    }
  }, [open])
  const value = useMemo(() => ({ open, setOpen, host }), [open, host])
  return (
    <BarContext.Provider value={value}>
      <div ref={box} className={more === 'open' ? 'bar-box all' : 'bar-box'}>
        <Roving
          role="toolbar"
          aria-label={label}
          className="control-bar"
          onFocus={({ target, currentTarget }) => {
            // What is reached by keys comes into sight.
            if (more === 'shut' && target.offsetTop > currentTarget.clientHeight) setMore('open')
          }}
        >
          {children}
        </Roving>
        {more !== 'none' && (
          <button
            type="button"
            className="word bar-more"
            aria-expanded={more === 'open'}
            onClick={() => setMore(more === 'open' ? 'shut' : 'open')}
          >
            {more === 'open' ? 'Less' : 'More'}
          </button>
        )}
        <div ref={setHost} />
      </div>
    </BarContext.Provider>
  )
}

/**
 * Whether a bar has more than its row shows: where the window is narrow its words go on in a second
 * row, which opens.
 */
function useMore(box: RefObject<HTMLElement | null>) {
  const [more, setMore] = useState<'none' | 'shut' | 'open'>('none')
  useEffect(() => {
    const bar = box.current?.firstElementChild
    if (!bar) return
    const look = () => {
      const rows = getComputedStyle(bar).flexWrap === 'wrap'
      const tops = new Set(
        [...bar.children].filter(isThere).map((one) => Math.round((one as HTMLElement).offsetTop / ROW_PX)),
      )
      setMore((now) => {
        if (!rows || tops.size < 2) return 'none'
        return now === 'open' ? 'open' : 'shut'
      })
    }
    const watch = new ResizeObserver(look)
    watch.observe(bar)
    const changed = new MutationObserver(look)
    changed.observe(bar, { childList: true, subtree: true, characterData: true })
    return () => {
      watch.disconnect()
      changed.disconnect()
    }
  }, [box])
  return [more, setMore] as const
}
const ROW_PX = 24
const isThere = (one: Element): boolean => (one as HTMLElement).offsetParent !== null

interface WordProps {
  /** What the word is about. */
  name: string
  /** What is set now, in words. */
  says: ReactNode
  title?: string
  /** Its row in the glossary, as the address there names it. */
  term?: string
  /** What is in it goes on while it is closed, once it was open. */
  keeps?: boolean
  children: ReactNode
}

/** A word of the bar that opens what it is set by. */
export function BarWord({ name, says, title, term, keeps = false, children }: WordProps) {
  const id = useId()
  const { open, setOpen, host } = useContext(BarContext)
  const here = open === id
  const opened = useEver(here)
  return (
    <>
      <button
        id={id}
        type="button"
        className="word"
        title={title}
        aria-expanded={here}
        aria-controls={`${id}-panel`}
        onClick={() => setOpen(here ? null : id)}
      >
        <span className="word-name">{name}</span> <b>{says}</b>
      </button>
      {host &&
        (here || (keeps && opened)) &&
        createPortal(
          <div id={`${id}-panel`} className="word-panel" role="group" aria-label={name} hidden={!here}>
            {children}
            {term && (
              <p className="word-term">
                <a
                  href={`/guide/glossary#${term}`}
                  target="_blank"
                  rel="noopener"
                  title="Opens beside this page"
                >
                  What “{term.replaceAll('-', ' ')}” means
                </a>
              </p>
            )}
          </div>,
          host,
        )}
    </>
  )
}
