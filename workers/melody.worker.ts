import { answerWith } from './answering'
import { melodyAnswers } from './chordMelodyAnswers'

answerWith(melodyAnswers)
