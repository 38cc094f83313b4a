import { answerWith } from './answering'
import { melodyAnswers } from './melody'

answerWith(melodyAnswers)
