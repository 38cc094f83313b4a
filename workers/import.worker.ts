import { answerWith } from './answering'
import { importAnswers } from './importAnswers'

answerWith(importAnswers)
