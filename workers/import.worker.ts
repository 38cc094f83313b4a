import { answerWith } from './answering'
import { importAnswers } from './import'

answerWith(importAnswers)
