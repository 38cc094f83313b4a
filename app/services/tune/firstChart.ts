/** Four plain chords to begin with, offered wherever a tune is still empty. */
export const FIRST_CHART = 'key: C\nmeter: 4/4\n[A] | C | Am | Dm | G |'
