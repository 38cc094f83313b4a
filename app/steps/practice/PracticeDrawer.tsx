import { firstOf } from '../../../core/lists'
import Button from '@mui/material/Button'
import type { MouseEvent } from 'react'
import { Link } from 'react-router'
import { itemKey } from '../../../core/practice/grade'
import { dayInWords } from '../../../core/practice/days'
import type { Item } from '../../../core/practice/items'
import { isPlayedPart, type Planned } from '../../../core/practice/plan'
import type { Easier } from '../../../core/voicing/ease'
import { writtenFrets } from '../../../core/neck/instrument'
import type { usePracticeLog } from '../../services/practice/usePracticeLog'
import { Roving } from '../../services/controls/Roving'
import { engravedWords } from '../../../core/chord/engraved'

export interface EasierHere {
  key: string
  symbol: string
  easier: Easier
}

interface Props {
  /** Where questions about this tune are asked. */
  trainer: string
  plan: readonly Planned[]
  items: readonly Item[]
  log: ReturnType<typeof usePracticeLog>
  chosen: string | null
  onChoose: (item: Pick<Item, 'kind' | 'item'>) => void
  /** Something hurt: what is easier to hold. */
  hurt: boolean
  easier: readonly EasierHere[]
  onEasier: (one: EasierHere) => void
}

/** What to do next and why; then everything that can be practised. */
export function PracticeDrawer({
  trainer,
  plan,
  items,
  log,
  chosen,
  onChoose,
  hurt,
  easier,
  onEasier,
}: Props) {
  const { records, today, goals } = log
  const wanted = new Set([...goals.values()].filter((goal) => goal.wanted).map(itemKey))
  const want = ({ kind, item }: Pick<Item, 'kind' | 'item'>) => {
    const known = goals.get(itemKey({ kind, item }))
    log.setGoal({ kind, item, tempo: known?.tempo ?? null, wanted: !known?.wanted })
  }
  if (items.length === 0)
    return <p className="quiet">The grips are looked for first: the Lines step finds them.</p>
  const total = plan.reduce((sum, { minutes }) => sum + minutes, 0)
  return (
    <>
      {hurt && (
        <section className="hurt" role="alert">
          <h3>It ended, and it is in the log</h3>
          <p>
            Put the guitar down for today, or play something that does not hurt. See a clinician when pain
            stays.
          </p>
          {easier.length > 0 && <p>Easier grips for next time:</p>}
          <ul className="plain-list">
            {easier.map((one) => (
              <li key={one.key}>
                {engravedWords(one.symbol)}, {one.easier.easing}: {writtenFrets(one.easier.voicing.frets)}{' '}
                <Button size="small" onClick={() => onEasier(one)}>
                  Take it
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
      <h3>
        Now, in {total} {total === 1 ? 'minute' : 'minutes'}
      </h3>
      <Roving as="ol" className="plain-list plan">
        {plan.map((part, at) => (
          <li key={`${at} ${part.item}`}>
            {part.kind === 'question' && (
              <Link to={trainer} className="plan-part">
                <b>{named(part)}</b>
                <span>{part.minutes} min</span>
                <small>{part.why}</small>
              </Link>
            )}
            {part.kind !== 'question' && isPlayedPart(part) && (
              <button
                type="button"
                className="plan-part"
                aria-pressed={chosen === itemKey(part)}
                onClick={(event) => {
                  letGo(event)
                  onChoose(part.kind === 'warm-up' ? { ...part, kind: 'passage' } : part)
                }}
              >
                <b>{engravedWords(named(part))}</b>
                <span>
                  {part.minutes} min{part.tempo === undefined ? '' : ` at ${part.tempo}`}
                </span>
                <small>{engravedWords(part.why)}</small>
              </button>
            )}
            {!isPlayedPart(part) && (
              <p className="plan-rest">
                {part.minutes} min, {part.item}: {part.why}
              </p>
            )}
          </li>
        ))}
      </Roving>
      <p className="quiet">Warm up, rest when it says so, and stop when it hurts.</p>
      <details>
        <summary>Everything that can be practised ({items.length})</summary>
        <Roving as="ol" className="plain-list plan">
          {items.map((item) => {
            const record = records?.get(itemKey(item))
            return (
              <li key={itemKey(item)} className="plan-item">
                <button
                  type="button"
                  className="plan-part"
                  aria-pressed={chosen === itemKey(item)}
                  onClick={(event) => {
                    letGo(event)
                    onChoose(item)
                  }}
                >
                  <b>{engravedWords(named(item))}</b>
                  <span>{record ? `due ${dayInWords(record.recall.due, today)}` : 'new'}</span>
                  <small>{engravedWords(item.why)}</small>
                </button>
                <Button
                  size="small"
                  aria-pressed={wanted.has(itemKey(item))}
                  onClick={() => want(item)}
                  title="What you want comes into the plan first"
                >
                  {wanted.has(itemKey(item)) ? 'Wanted' : 'Want'}
                </Button>
              </li>
            )
          })}
        </Roving>
      </details>
    </>
  )
}

const KIND_WORDS: Readonly<Record<Planned['kind'], string>> = {
  'warm-up': 'Warm-up: ',
  passage: '',
  change: '',
  grip: 'Grip ',
  'top line': 'Sing ',
  cadence: '',
  keys: 'The tune ',
  question: '',
  tune: 'Play ',
  rest: '',
}

/** Chosen by a touch: the next press of the one key is for the stage. */
const letGo = ({ detail, currentTarget }: MouseEvent<HTMLButtonElement>): void => {
  if (detail > 0) currentTarget.blur()
}

const named = ({ kind, item }: Pick<Planned, 'kind' | 'item'>): string => {
  const name = `${KIND_WORDS[kind]}${item}`
  return firstOf(name).toUpperCase() + name.slice(1)
}
