import { answerWith } from './answering'
import { searchAnswers } from './searchAnswers'

answerWith(searchAnswers)
