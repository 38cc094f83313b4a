import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { stringNumber, touched, writtenFrets } from '../../../core/neck/instrument'
import { readFrets } from '../../../core/neck/readFrets'
import type { Question } from '../../../core/practice/questions/question'
import { engravedWords } from '../../../core/chord/engraved'
import { Neck, type NeckMark } from '../../services/notation/Neck'
import { useOnChange } from '../../services/words/stable'

interface Props {
  question: Question
  strings: number
  disabled: boolean
  onAnswer: (given: string) => void
}

/** Frets of the neck that is answered on. */
const FRETS = 15

/** Where a question is answered: by a choice, on the neck, or in words. */
export function Answering({ question, strings, disabled, onAnswer }: Props) {
  if (question.choices)
    return (
      <div className="trainer-choices" role="group" aria-label="Answers">
        {question.choices.map((choice, at) => (
          <Button key={choice} variant="outlined" disabled={disabled} onClick={() => onAnswer(choice)}>
            <kbd>{at + 1}</kbd> {engravedWords(choice)}
          </Button>
        ))}
      </div>
    )
  if (question.by === 'place')
    return (
      <Neck
        strings={strings}
        frets={FRETS}
        marks={[]}
        label="Touch the place"
        {...(disabled
          ? {}
          : {
              onTouch: (string: number, fret: number) => onAnswer(`${stringNumber(string, strings)}:${fret}`),
            })}
      />
    )
  return question.by === 'grip' ? (
    <GripAnswer strings={strings} disabled={disabled} onAnswer={onAnswer} />
  ) : (
    <WordAnswer disabled={disabled} label="Notes, such as C E G" onAnswer={onAnswer} />
  )
}

/** A grip put together on the neck, one touch a string, or typed. */
function GripAnswer({ strings, disabled, onAnswer }: Pick<Props, 'strings' | 'disabled' | 'onAnswer'>) {
  const [frets, setFrets] = useState<(number | null)[]>(() => Array.from({ length: strings }, () => null))
  const marks = frets.flatMap((fret, string): NeckMark[] =>
    fret === null ? [] : [{ string, fret, label: '', kind: 'held' }],
  )
  return (
    <>
      <Neck
        strings={strings}
        frets={FRETS}
        marks={marks}
        label="Put the grip together, one place a string"
        {...(disabled
          ? {}
          : { onTouch: (string: number, fret: number) => setFrets(touched(frets, string, fret)) })}
      />
      <Button
        variant="contained"
        color="primary"
        disabled={disabled}
        onClick={() => onAnswer(writtenFrets(frets))}
      >
        This grip: {writtenFrets(frets)}
      </Button>
      <WordAnswer
        disabled={disabled}
        label="or its frets, lowest string first"
        onAnswer={(text) => {
          const read = readFrets(text, strings)
          onAnswer(read.ok ? writtenFrets(read.value) : text)
        }}
      />
    </>
  )
}

function WordAnswer({
  label,
  disabled,
  onAnswer,
}: {
  label: string
  disabled: boolean
  onAnswer: (given: string) => void
}) {
  const [typed, setTyped] = useState('')
  useOnChange(disabled, (now) => {
    if (!now) setTyped('')
  })
  return (
    <form
      className="trainer-words"
      onSubmit={(event) => {
        event.preventDefault()
        if (typed.trim()) onAnswer(typed.trim())
      }}
    >
      <TextField
        size="small"
        label={label}
        value={typed}
        disabled={disabled}
        onChange={({ target }) => setTyped(target.value)}
      />
      <Button type="submit" disabled={disabled || typed.trim() === ''}>
        Answer
      </Button>
    </form>
  )
}
