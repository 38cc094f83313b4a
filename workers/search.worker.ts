import { answerWith } from './answering'
import { searchAnswers } from './search'

answerWith(searchAnswers)
