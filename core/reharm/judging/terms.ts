import { CHORD_TERMS } from './chordTerms'
import { FORM_TERMS } from './formTerms'
import type { JudgedTerm } from './heard'
import { LINE_TERMS } from './lineTerms'

/** Everything a version is judged by. */
export const JUDGED_TERMS: readonly JudgedTerm[] = [...FORM_TERMS, ...CHORD_TERMS, ...LINE_TERMS]
