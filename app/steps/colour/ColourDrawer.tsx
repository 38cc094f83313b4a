import { firstOf, itemAt } from '../../../core/lists'
import Button from '@mui/material/Button'
import { useEffect, useRef, useState } from 'react'
import { INTENTS, putsKey, type Intent } from '../../../core/reharm/change'
import { farInWords } from '../../../core/reharm/howFar'
import { Roving } from '../../services/controls/Roving'
import { Why } from '../../services/words/Why'
import { TradeWords } from '../../services/words/TradeWords'
import { TriedNotice } from '../../services/controls/TriedNotice'
import { ChordName } from '../../services/notation/ChordName'
import { engraved, engravedWords } from '../../../core/chord/engraved'
import type { Decision } from '../../../core/tune/decisions'
import { plainChord, type TuneChord } from '../../../core/tune/tuneReading'
import { PLACE_WORDS } from '../../services/words/placeWords'
import type { Offered } from './offered'

const MOST_DIGIT = 9
/** Shown of each intent before the player asks for all. */
const SHOWN = 14
/** A mouse that only passes by sounds nothing. */
const HOVER_MS = 160

const INTENT_WORDS: Readonly<Record<Intent, string>> = {
  colour: 'Colour',
  swap: 'Swap: another chord with the same job',
  insert: 'Insert: more on the way',
  borrow: 'Borrow: from another key',
  'bass and texture': 'Bass and texture',
  simplify: 'Simplify',
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
  /** What is tried is left. */
  onLeave: () => void
  onPutBack: () => void
}

/**
 * What the selected chord or stretch can become, by intent. Resting on one sounds it where it would
 * stand; a click keeps it.
 */
export function ColourDrawer({ chords, offered, at, tried, onHear, onKeep, onLeave, onPutBack }: Props) {
  const [all, setAll] = useState<ReadonlySet<Intent>>(new Set())
  const resting = useResting(onHear)
  const { looked } = resting
  const list = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (at !== null)
      list.current?.querySelector(`[data-option='${at}']`)?.scrollIntoView({ block: 'nearest' })
  }, [at])
  const first = chords[0]
  if (!first || !chords.some((chord) => chord.decision))
    return <p className="quiet">Nothing to change here.</p>
  const decision = chords.length === 1 ? first.decision : null
  const now = decision && keyOf(decision)
  const chosen = chords.some((chord) => chord.decision && chord.decision.by !== 'control')
  const takenAt = offered.findIndex((one) => one.key === now)
  const reason = offered[at ?? looked ?? takenAt]
  const intents = INTENTS.filter((intent) => offered.some((one) => one.intent === intent))
  return (
    <div ref={list}>
      <h2>
        {chords.map((chord) => {
          const plain = plainChord(chord)
          return (
            plain && (
              <span className="reason-chord" key={chord.key}>
                <ChordName chord={plain} />
              </span>
            )
          )
        })}{' '}
        can become
      </h2>
      {chords.length === 1 && first.reading && (
        <p className="quiet">
          <b>{PLACE_WORDS[first.reading.place]}.</b> {engravedWords(first.reading.placeReason)}
        </p>
      )}
      {reason && (
        <div className="option-reason" id="option-reason">
          <p>
            {!reason.why.startsWith(firstOf(reason.puts).chord.canonical) && (
              <b>{engravedWords(reason.puts.map(({ chord }) => chord.canonical).join(' '))} </b>
            )}
            <TradeWords>{reason.why}</TradeWords> <i>{reason.mood}</i>
          </p>
          {reason.option && <OptionFacts key={`${reason.key}${reason.name}`} offered={reason} />}
        </div>
      )}
      {tried && at !== null && (
        <TriedNotice onKeep={() => onKeep(itemAt(offered, at))} onBack={onLeave}>
          <b>
            {itemAt(offered, at)
              .puts.map(({ chord }) => chord.canonical)
              .join(' ')}
          </b>{' '}
          is tried.
        </TriedNotice>
      )}
      {intents.map((intent) => {
        const inside = offered
          .map((one, order) => ({ one, order }))
          .filter(({ one }) => one.intent === intent)
        const shown = all.has(intent)
          ? inside
          : inside.filter(({ order }, place) => place < SHOWN || order === at)
        return (
          <section key={intent} aria-label={intent}>
            <h3>{INTENT_WORDS[intent]}</h3>
            <Roving as="ol" className="options">
              {shown.map(({ one, order }) => (
                <li key={`${one.key}${one.name}`}>
                  <OptionButton
                    option={one}
                    order={order}
                    taken={one.key === now}
                    tried={order === at}
                    looked={order === looked}
                    on={resting.on(one, order)}
                    onKeep={() => {
                      resting.leave()
                      onKeep(one)
                    }}
                  />
                </li>
              ))}
            </Roving>
            {shown.length < inside.length && (
              <Button size="small" onClick={() => setAll(new Set([...all, intent]))}>
                All {inside.length}
              </Button>
            )}
          </section>
        )
      })}
      {offered.length === 0 && (
        <p className="quiet">
          No rule takes the place of these chords together. “Take me this far” above goes through this stretch
          alone; a single chord has options of its own.
        </p>
      )}
      <Button disabled={!chosen} onClick={onPutBack}>
        Take my choice away (Backspace)
      </Button>
    </div>
  )
}

/**
 * Where the pointer rests or the focus stands: that option's reason is said, and resting on it
 * sounds it.
 */
function useResting(onHear: (option: Offered) => void) {
  const [pointed, setPointed] = useState<number | null>(null)
  const [focused, setFocused] = useState<number | null>(null)
  const hover = useRef<ReturnType<typeof setTimeout>>(undefined)
  useEffect(() => () => clearTimeout(hover.current), [])
  return {
    looked: pointed ?? focused,
    leave: () => {
      clearTimeout(hover.current)
      setPointed(null)
      setFocused(null)
    },
    on: (option: Offered, order: number) => ({
      // Not on entering: a list that has moved under a pointer at rest is not pointed at.
      onPointerMove: ({ movementX, movementY }: Pick<PointerEvent, 'movementX' | 'movementY'>) => {
        if (pointed === order || (movementX === 0 && movementY === 0)) return
        clearTimeout(hover.current)
        setPointed(order)
        hover.current = setTimeout(() => onHear(option), HOVER_MS)
      },
      onPointerLeave: () => {
        setPointed(null)
        clearTimeout(hover.current)
      },
      onFocus: () => setFocused(order),
      onBlur: () => setFocused(null),
    }),
  }
}

interface OptionProps {
  option: Offered
  order: number
  /** It stands in the tune; it is tried; its reason is said. */
  taken: boolean
  tried: boolean
  looked: boolean
  on: ReturnType<ReturnType<typeof useResting>['on']>
  onKeep: () => void
}

/** What the chord can become, with its digit, what it adds, and how far it goes. */
function OptionButton({ option, order, taken, tried, looked, on, onKeep }: OptionProps) {
  return (
    <button
      type="button"
      data-option={order}
      className={['option', taken && 'taken', tried && 'at', option.puts.length > 1 && 'long']
        .filter(Boolean)
        .join(' ')}
      aria-pressed={taken}
      {...on}
      aria-describedby={looked ? 'option-reason' : undefined}
      onClick={onKeep}
    >
      <kbd>{order <= MOST_DIGIT ? order : ''}</kbd>
      <span className="option-chord">
        {option.puts.map(({ chord }, place) => (
          <span className="reason-chord" key={place}>
            <ChordName chord={chord} />
          </span>
        ))}
      </span>
      <span className="option-added">{sideNote(option)}</span>
      {option.far !== null && <span className="option-far">{farInWords(option.far)}</span>}
    </button>
  )
}

const keyOf = (decision: Decision): string => putsKey(decision)

function sideNote({ intent, added, special, name }: Offered): string {
  if (intent !== 'colour') return engravedWords(name)
  return `${added.length > 0 ? `+ ${added.map(engraved).join(' ')}` : ''}${special ? ' special' : ''}`
}

/**
 * How far it lies from home, what stays and goes, how it leads in and out, the melody over it, and
 * why it stands here in the list: laid open.
 */
function OptionFacts({ offered: { option, parts, far } }: { offered: Offered }) {
  const {
    distance: { tones, root },
    lost,
    kept,
    also,
    into,
    out,
    melody,
    school,
  } = option!
  const beyond = melody.filter(({ heard }) => heard !== 'chord tone')
  const facts = [
    `${Math.round(far! * 100)} of 100, where 100 changes as much as any rule could here. ${tones === 0 ? 'All its tones are in the key' : `${tidy(tones)} of its tones ${tones === 1 ? 'is' : 'are'} outside the key`}, and its root is ${root === 0 ? 'the tonic' : `${tidy(root)} ${root === 1 ? 'fifth' : 'fifths'} from the tonic`}.`,
    kept.length > 0
      ? `Of the plain chord ${kept.join(' ')} ${kept.length === 1 ? 'stays' : 'stay'}${lost.length > 0 ? ` and ${lost.join(' ')} ${lost.length === 1 ? 'goes' : 'go'}` : ''}.`
      : `Nothing of the plain chord stays.`,
    into !== null || out !== null
      ? `The voices move at least ${[into !== null && `${halfSteps(into)} into it`, out !== null && `${halfSteps(out)} out of it`].filter(Boolean).join(' and ')}, all together.`
      : '',
    ...also.map(({ name, why }) => `Also as ${name}: ${why}`),
    parts && placeInWords(parts, school),
  ]
    .filter(Boolean)
    .join(' ')
  return (
    <div className="option-facts" role="group" aria-label="How far it is">
      {farInWords(far!)}
      {beyond.length > 0 &&
        `; melody: ${beyond.map(({ note, heard }) => `${engravedWords(note)} ${heard}`).join(', ')}`}{' '}
      <Why>{facts}</Why>
    </div>
  )
}

const halfSteps = (count: number): string => `${count} half ${count === 1 ? 'step' : 'steps'}`

/** What raised and what lowered it in the list, from what the player said under Taste. */
function placeInWords(parts: NonNullable<Offered['parts']>, school: string): string {
  const up = [
    parts.far > 0.8 && 'goes as far as you like to go',
    parts.busy > 0.01 && 'adds chords',
    parts.bass > 0.01 && 'its bass steps',
    parts.school > 0.01 && `you lean to ${school}`,
    parts.liking > 0.01 && 'you kept its like before',
  ].filter(Boolean)
  const down = [
    parts.far < 0.5 && 'goes farther, or less far, than you like',
    parts.busy < -0.01 && 'adds chords',
    parts.school < -0.01 && `you lean away from ${school}`,
    parts.special < -0.01 && 'a special colour',
    parts.melody < -0.01 && 'the melody fights it',
  ].filter(Boolean)
  return [
    `Manner: ${school}.`,
    up.length > 0 && `Higher in the list: ${up.join(', ')}.`,
    down.length > 0 && `Lower in the list: ${down.join(', ')}.`,
  ]
    .filter(Boolean)
    .join(' ')
}
const tidy = (value: number) => String(Math.round(value * 10) / 10)
