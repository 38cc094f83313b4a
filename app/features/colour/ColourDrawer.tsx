import Button from '@mui/material/Button'
import { useEffect, useRef, useState } from 'react'
import { INTENTS, putsKey, type Intent } from '../../../core/reharm/change'
import { Why } from '../chart/Why'
import { ChordName, engraved, engravedWords } from '../notation/ChordName'
import type { Decision } from '../tune/decisions'
import { plainChord, type TuneChord } from '../workspace/useTuneReading'
import type { Offered } from './offered'

const MOST_DIGIT = 9
/** Shown of each intent before the player asks for all. */
const SHOWN = 14
/** A mouse that only passes by sounds nothing. */
const HOVER_MS = 160

const INTENT_WORDS: Readonly<Record<Intent, string>> = {
  colour: 'Colour', swap: 'Swap: another chord with the same job', insert: 'Insert: more on the way', borrow: 'Borrow: from another key', 'bass and texture': 'Bass and texture', simplify: 'Simplify',
}

interface Props {
  /** The selected chords of the home line. */
  chords: readonly TuneChord[]
  offered: readonly Offered[]
  /** The one that is tried, or that the arrow keys stand on. */
  at: number | null
  tried: boolean
  onHear: (offered: Offered) => void
  onKeep: (offered: Offered) => void
  onPutBack: () => void
}

/** What the selected chord or stretch can become, by intent. Resting on one sounds it where it would stand; a click keeps it. */
export function ColourDrawer({ chords, offered, at, tried, onHear, onKeep, onPutBack }: Props) {
  const [all, setAll] = useState<ReadonlySet<Intent>>(new Set())
  const hover = useRef<ReturnType<typeof setTimeout>>(undefined)
  const list = useRef<HTMLDivElement>(null)
  useEffect(() => { if (at !== null) list.current?.querySelector(`[data-option='${at}']`)?.scrollIntoView({ block: 'nearest' }) }, [at])
  useEffect(() => () => clearTimeout(hover.current), [])
  const first = chords[0]
  if (!first || !chords.some((chord) => chord.decision)) return <p className="quiet">Nothing to change here.</p>
  const decision = chords.length === 1 ? first.decision : null
  const now = decision && keyOf(decision)
  const chosen = chords.some((chord) => chord.decision && chord.decision.by !== 'control')
  const intents = INTENTS.filter((intent) => offered.some((one) => one.intent === intent))
  return (
    <div ref={list}>
      <h2>{chords.map((chord) => { const plain = plainChord(chord); return plain && <span className="reason-chord" key={chord.key}><ChordName chord={plain} /></span> })} can become</h2>
      {tried && at !== null && <p className="trying" role="status"><b>{offered[at]!.puts.map(({ chord }) => chord.canonical).join(' ')}</b> is tried. <kbd>Enter</kbd> keeps it, <kbd>Esc</kbd> leaves it.</p>}
      {intents.map((intent) => {
        const inside = offered.map((one, order) => ({ one, order })).filter(({ one }) => one.intent === intent)
        const shown = all.has(intent) ? inside : inside.filter(({ order }, place) => place < SHOWN || order === at)
        return (
          <section key={intent} aria-label={intent}>
            <h3>{INTENT_WORDS[intent]}</h3>
            <ol className="options">
              {shown.map(({ one, order }) => (
                <li key={`${one.key}${one.name}`}>
                  <button
                    type="button" data-option={order} className={['option', one.key === now && 'taken', order === at && 'at', one.puts.length > 1 && 'long'].filter(Boolean).join(' ')} aria-pressed={one.key === now}
                    onPointerEnter={() => { hover.current = setTimeout(() => onHear(one), HOVER_MS) }} onPointerLeave={() => clearTimeout(hover.current)}
                    onClick={() => { clearTimeout(hover.current); onKeep(one) }}
                  >
                    <kbd>{order <= MOST_DIGIT ? order : ''}</kbd>
                    <span className="option-chord">{one.puts.map(({ chord }, place) => <span className="reason-chord" key={place}><ChordName chord={chord} /></span>)}</span>
                    <span className="option-added">{sideNote(one)}</span>
                    <span className="option-why">{engravedWords(one.why)} <i>{one.mood}</i></span>
                  </button>
                  {one.option && <OptionFacts offered={one} />}
                </li>
              ))}
            </ol>
            {shown.length < inside.length && <Button size="small" onClick={() => setAll(new Set([...all, intent]))}>All {inside.length}</Button>}
          </section>
        )
      })}
      {offered.length === 0 && <p className="quiet">No rule takes the place of these chords together. “Take me this far” above goes through this stretch alone; a single chord has options of its own.</p>}
      <Button disabled={!chosen} onClick={onPutBack}>Give back to the control (Backspace)</Button>
    </div>
  )
}

const keyOf = (decision: Decision): string => putsKey(decision)

function sideNote({ intent, added, special, name }: Offered): string {
  if (intent !== 'colour') return engravedWords(name)
  return `${added.length > 0 ? `+ ${added.map(engraved).join(' ')}` : ''}${special ? ' special' : ''}`
}

/** How far it lies from home, what stays and goes, how it leads in and out, the melody over it, and why it stands here in the list: laid open. */
function OptionFacts({ offered: { option, parts } }: { offered: Offered }) {
  const { distance: { total, tones, root }, lost, kept, also, into, out, melody, school } = option!
  const beyond = melody.filter(({ heard }) => heard !== 'chord tone')
  const facts = [
    `${tidy(tones)} of its tones are outside the key and its root is ${tidy(root)} ${root === 1 ? 'fifth' : 'fifths'} from the tonic: 0.7 × ${tidy(tones)}/4 + 0.3 × ${tidy(root)}/6.`,
    kept.length > 0 ? `Of the plain chord ${kept.join(' ')} ${kept.length === 1 ? 'stays' : 'stay'}${lost.length > 0 ? ` and ${lost.join(' ')} ${lost.length === 1 ? 'goes' : 'go'}` : ''}.` : `Nothing of the plain chord stays.`,
    into !== null || out !== null ? `Least motion: ${[into !== null && `${into} ${into === 1 ? 'semitone' : 'semitones'} in`, out !== null && `${out} out`].filter(Boolean).join(', ')}.` : '',
    ...also.map(({ name, why }) => `Also as ${name}: ${why}`),
    parts && `Its place in the list: ${Object.entries(parts).filter(([, part]) => Math.abs(part) > 0.005).map(([name, part]) => `${PART_WORDS[name as keyof typeof parts]} ${part > 0 ? '+' : '−'}${Math.abs(part).toFixed(2)}`).join(', ')} (school: ${school}).`,
  ].filter(Boolean).join(' ')
  return (
    <div className="option-facts">
      {total.toFixed(2)} from home{beyond.length > 0 && `; melody: ${beyond.map(({ note, heard }) => `${note} ${heard}`).join(', ')}`} <Why>{facts}</Why>
    </div>
  )
}

const PART_WORDS = { far: 'nearness to the wanted distance', busy: 'chords put in', bass: 'a bass that steps', school: 'school', liking: 'kept before', melody: 'melody' } as const
const tidy = (value: number) => String(Math.round(value * 10) / 10)
