import Button from '@mui/material/Button'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useEffect, useMemo, useState } from 'react'
import { Form, Link, useSubmit } from 'react-router'
import { z } from 'zod'
import { keyName, parseKey } from '../../core/pitch/key'
import { must } from '../../core/result'
import type { Question, QuestionKind } from '../../core/practice/questions/question'
import { QUESTION_KINDS } from '../../core/practice/questions/question'
import { withEveryGrip } from '../../core/tune/searchQuestion'
import { keptVoicings } from '../../core/tune/keptGrips'
import { madeChord, readTuneDocument } from '../../core/tune/tuneReading'
import { listGrips } from '../../db/grips'
import { readPlayer } from '../../db/player'
import { readTune } from '../../db/tunes'
import { listTunes } from '../../db/songbook'
import type { Voicing } from '../../core/voicing/voicing'
import { refuseTooMuch, tooMuch } from '../features/paper/bound.server'
import { database } from '../database.server'
import { Answering } from '../features/trainer/Answering'
import { useTraining, type AskedAbout, type Training } from '../features/trainer/useTraining'
import { actOn, type KeyRow } from '../services/keys/keyTable'
import { useKeys } from '../services/keys/useKeys'
import { engravedWords } from '../../core/chord/engraved'
import { GripDiagram } from '../services/notation/GripDiagram'
import { BARS_IN_SYSTEM, unitsOf } from '../services/notation/systemLayout'
import { Threads } from '../services/notation/Threads'
import { usePlayerSettings } from '../services/player/PlayerContext'
import type { LoggedPass } from '../../core/practice/passSchema'
import { logPass, sendWaiting } from '../services/practice/passOutbox'
import { zoneHere } from '../services/practice/usePracticeLog'
import { excerptOf } from '../services/sound/schedule'
import { SOUND } from '../services/sound/soundStore'
import { PageHead } from '../theme/PageHead'
import type { Route } from './+types/trainer'

/** Tunes that can be chosen here: the latest. */
const MOST_TUNES = 200
/** Chords of a tune that are asked about. */
const MOST_CHORDS = 64
/** What the grip book's questions about keys are in. */
const BOOK_KEY = 'C'

const BOOK = 'grip book'
const view = z.object({
  from: z
    .union([z.uuid(), z.literal(BOOK)])
    .nullable()
    .catch(null),
})

export function loader({ request }: Route.LoaderArgs) {
  const db = database()
  const asked = view.parse(Object.fromEntries(new URL(request.url).searchParams))
  const tunes = listTunes(db, { words: [], most: MOST_TUNES, sort: 'touched' }).entries.map(
    ({ id, title }) => ({
      id,
      title,
    }),
  )
  const from = asked.from ?? tunes[0]?.id ?? BOOK
  const state = from === BOOK ? null : readTune(db, from)
  if (!state) {
    const grips = listGrips(db)
    return {
      tunes,
      from: BOOK,
      title: 'Grip book',
      about: {
        symbols: grips.map(({ symbol }) => symbol),
        frets: grips.map(({ frets }) => frets),
      },
      key: BOOK_KEY,
    }
  }
  refuseTooMuch(tooMuch(state.document))
  const player = readPlayer(db)
  const document = withEveryGrip(state.document, readTuneDocument(state.document, 'case', player), player)
  const reading = readTuneDocument(document, 'case', player)
  const voicings = keptVoicings(document, reading.line, reading.chart.capo, player)
  const chords = reading.line.flatMap((one) => {
    const made = madeChord(one)
    return made ? [{ symbol: made.canonical, frets: voicings.get(one.key)?.frets ?? null }] : []
  })
  return {
    tunes,
    from,
    title: document.title,
    about: {
      symbols: chords.slice(0, MOST_CHORDS).map(({ symbol }) => symbol),
      frets: chords.slice(0, MOST_CHORDS).map(({ frets }) => frets),
    },
    key: keyName(reading.analysis.key),
  }
}

export const meta: Route.MetaFunction = () => [{ title: 'Trainer · Yellow Heron' }]

const KIND_WORDS: Readonly<Record<QuestionKind, string>> = {
  top: 'what is on top',
  third: 'where the third is',
  inversion: 'next inversion',
  'guide tones': 'guide tones',
  spelling: 'spelling',
  'next grip': 'the next grip',
  function: 'what a chord does',
  name: 'what a grip is called',
  ear: 'by ear',
}

export default function TrainerPage({ loaderData }: Route.ComponentProps) {
  const { tunes, from, title } = loaderData
  const submit = useSubmit()
  const [kinds, setKinds] = useState<readonly QuestionKind[]>(QUESTION_KINDS)
  const [trouble, setTrouble] = useState<string | null>(null)
  const about = useMemo(
    (): AskedAbout => ({ ...loaderData.about, key: must(parseKey(loaderData.key)) }),
    [loaderData],
  )
  const {
    settings: { instrument, hand },
  } = usePlayerSettings()
  const body = useMemo(() => ({ instrument, hand }), [instrument, hand])
  useEffect(() => void sendWaiting().then(setTrouble), [])
  const training = useTraining(about, kinds, body, (asked, grade, seconds) => {
    void logPass(passOf({ id: from, title }, asked, grade, seconds)).then(setTrouble)
  })
  const { question } = training
  /** No session runs: the first question of the next one stands behind what begins it. */
  const waiting = !training.begun || training.over || !question
  const hear = (one: Question) => {
    if (one.sounds.length > 0)
      void SOUND.play(excerptOf(one.sounds.map((midis) => ({ beats: 2, midis }))), HEARD_TEMPO)
  }
  // What is asked by ear sounds by itself.
  useEffect(() => {
    if (question?.kind === 'ear' && !waiting) hear(question)
    return SOUND.stop
  }, [question, waiting])
  const keys = trainerKeys(training, waiting, hear)
  useKeys(
    (event) => actOn(keys, event),
    () => null,
  )
  return (
    <main className="page trainer">
      <PageHead title="Trainer" />
      <Form
        method="get"
        className="songbook-tools log-tools log"
        onChange={(event) => void submit(event.currentTarget)}
      >
        <label>
          Questions about{' '}
          <select name="from" defaultValue={from} key={from}>
            {tunes.map(({ id, title: name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
            <option value={BOOK}>the grip book</option>
          </select>
        </label>
        <noscript>
          <button type="submit">Choose</button>
        </noscript>
      </Form>
      <ToggleButtonGroup
        size="small"
        value={kinds}
        aria-label="What is asked"
        className="trainer-kinds"
        onChange={(_, next: QuestionKind[]) => next.length > 0 && setKinds(next)}
      >
        {QUESTION_KINDS.map((kind) => (
          <ToggleButton key={kind} value={kind}>
            {KIND_WORDS[kind]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {trouble && (
        <p className="notice" role="alert">
          {trouble}
        </p>
      )}
      {about.symbols.length === 0 && (
        <p className="empty">
          There are no chords to ask about here yet: choose a tune with chords above, or{' '}
          <Link to="/">make one</Link>.
        </p>
      )}
      <div className={waiting ? 'trainer-stage waiting' : 'trainer-stage'}>
        {about.symbols.length > 0 && waiting && (
          <Begin training={training} kinds={kinds} chords={about.symbols.length} />
        )}
        {question && !training.over && (
          <QuestionCard
            question={question}
            training={training}
            waiting={waiting}
            strings={body.instrument.tuning.length}
            onHear={() => hear(question)}
          />
        )}
      </div>
      <p className="quiet">Three minutes at a time. Stop when it hurts.</p>
    </main>
  )
}

/** An answer as the log has it. */
const passOf = (
  about: { id: string; title: string },
  question: Question,
  grade: LoggedPass['grade'],
  seconds: number,
): LoggedPass => ({
  id: crypto.randomUUID(),
  tuneId: about.id === BOOK ? null : about.id,
  title: about.title.slice(0, 120),
  kind: 'question',
  item: `${question.kind}: ${question.item}`.slice(0, 300),
  fromBar: null,
  toBar: null,
  key: null,
  tempo: null,
  goal: null,
  grade,
  seconds,
  at: Date.now(),
  zone: zoneHere(),
  note: '',
  hurt: false,
})

/**
 * @param waiting no session runs: the first question of the next one stands behind what begins it
 */
function trainerKeys(training: Training, waiting: boolean, hear: (question: Question) => void): KeyRow[] {
  const { question, answered } = training
  return [
    {
      on: ['Space', 'Enter'],
      shown: 'Space',
      says: 'Begin; after an answer, the next question',
      act: () => {
        if (waiting) return training.begin()
        if (answered) training.next()
      },
    },
    {
      on: ['1', '2', '3', '4', '5', '6'],
      shown: '1 to 6',
      says: 'The answer of this number',
      act: (press) => {
        const choice = question?.choices?.[Number(press) - 1]
        if (!choice || answered || waiting) return false
        training.answer(choice)

        return true
      },
    },
    {
      on: ['h'],
      shown: 'H',
      says: 'A hint',
      act: () => {
        if (waiting || answered) return false
        training.hint()

        return true
      },
    },
    {
      on: ['p'],
      shown: 'P',
      says: 'Hear it',
      act: () => {
        if (waiting || !question) return false
        hear(question)

        return true
      },
    },
  ]
}

interface QuestionCardProps {
  question: Question
  training: Training
  waiting: boolean
  /** How many the instrument has. */
  strings: number
  onHear: () => void
}

/** A question with what it shows, what can be answered, and after that what was right. */
function QuestionCard({ question, training, waiting, strings, onHear }: QuestionCardProps) {
  const { answered, left } = training
  return (
    <section className="trainer-question" aria-label="Question" inert={waiting}>
      <p className="trainer-score">
        {waiting
          ? 'The first question'
          : `${training.right} of ${training.asked} right, ${leftInWords(left)}`}
      </p>
      <div role="status">
        <h2>{engravedWords(question.ask)}</h2>
      </div>
      {question.sounds.length > 0 && (question.kind === 'ear' || answered) && (
        <Button onClick={onHear}>Hear it (P)</Button>
      )}
      <div className="trainer-grips">
        {gripsOf(question, answered !== null).map((voicing) => (
          <GripDiagram key={voicing.frets.join()} voicing={voicing} scale={1.4} degrees={answered !== null} />
        ))}
      </div>
      <Answering
        key={question.ask}
        question={question}
        strings={strings}
        disabled={answered !== null}
        onAnswer={training.answer}
      />
      {!answered && !training.hinted && <Button onClick={training.hint}>A hint (H)</Button>}
      {!answered && training.hinted && <p className="trying">{engravedWords(hintOf(question))}</p>}
      {answered && (
        <div className={answered.right ? 'trainer-answer right' : 'trainer-answer'} role="status">
          <p>
            <b>{answered.right ? 'Right.' : engravedWords(`No: ${question.accepts[0]}.`)}</b>{' '}
            {engravedWords(question.explain)}
          </p>
          {question.moves.length > 1 && <Moves question={question} />}
          <Button variant="contained" color="primary" onClick={training.next}>
            Next (Space)
          </Button>
        </div>
      )}
    </section>
  )
}

/** Beats a minute at which what is asked by ear is heard. */
const HEARD_TEMPO = 80

function Begin({
  training,
  kinds,
  chords,
}: {
  training: Training
  kinds: readonly QuestionKind[]
  chords: number
}) {
  return (
    <div className="trainer-begin">
      {training.asked === 0 && (
        <p>
          {chords} {chords === 1 ? 'chord' : 'chords'} with {chords === 1 ? 'its grip' : 'their grips'}. Asked
          by turns: {kinds.map((kind) => KIND_WORDS[kind]).join(', ')}.
        </p>
      )}
      {training.asked > 0 && (
        <p role="status">
          Three minutes: {training.right} of {training.asked} right. What was missed comes back in the plan.
        </p>
      )}
      <Button variant="contained" color="primary" onClick={training.begin}>
        {training.asked > 0 ? 'Three more minutes' : 'Begin three minutes'} (Space)
      </Button>
    </div>
  )
}

const leftInWords = (left: number | null): string => (left === 0 ? 'the last one' : `${left} s left`)

/** The grips of a question; with its answer those of the answer too. */
const gripsOf = ({ shows, answers }: Question, answered: boolean): Voicing[] =>
  answered
    ? [...shows.filter((one) => !answers.some(({ frets }) => frets.join() === one.frets.join())), ...answers]
    : [...shows]

const nothing = () => undefined

/** How the voices go, as threads. */
function Moves({ question: { moves } }: { question: Question }) {
  const midis = moves.flatMap(({ voicing }) => voicing.midis)
  return (
    <div className="trainer-threads">
      <Threads
        wide={unitsOf({ room: BARS_IN_SYSTEM })}
        chords={moves.map(({ chord, voicing }, at) => ({
          key: String(at),
          from: at / moves.length,
          to: (at + 1) / moves.length,
          chord,
          voicing,
        }))}
        onward={null}
        range={[Math.min(...midis), Math.max(...midis)]}
        selected={null}
        taken={null}
        onSelect={nothing}
        onTake={nothing}
        onDrag={nothing}
      />
    </div>
  )
}

/** Half of the answer: two choices fewer, or where it begins. */
function hintOf({ choices, accepts, by }: Question): string {
  const wrong = choices?.filter((choice) => !accepts.includes(choice))
  if (wrong?.length) return `It is not ${wrong.slice(0, Math.max(1, wrong.length - 1)).join(', nor ')}.`
  const [first] = accepts
  return by === 'place'
    ? `One place is on string ${first!.split(':')[0]}.`
    : `It begins ${first!.split(' ').slice(0, 2).join(' ')} …`
}
