import fc from 'fast-check'

const PIECES = [
  'C', 'Am7', 'Bb13(b9)', 'F#m7b5/E', 'N.C.', 'Qz', 'H7', 'C_G', '_', '.', '/', '%', '|', '|:', ':|', ':|x3', '||', '|]', '::', '[A]', '[', ']', '(', ')', '{', '}',
  '1.', '|2,3.', 'Segno', 'D.S. al Coda', 'To Coda', '"soft"', '"', '\n', '\n\n', 'key: C\n', 'key: H\n', 'meter: 3/4\n', 'meter: 99/7\n', 'pickup: 3\n', 'capo: 99\n',
  'tempo: 1e9\n', '{define: C frets x 3 2 0 1 0}', '{comment: Verse}', '{start_of_tab}', '[C]word', 'X:1\n', 'K:Am\n', 'M:C|\n', 'L:1/8\n', '(3abc', 'z4', '[ceg]', '"Am"', 'w: la-la\n',
  '<score-partwise>', '<part id="P1">', '<measure>', '</measure>', '<note>', '&amp;', '&#x0;', '<!DOCTYPE a [<!ENTITY b "c">]>', 'e|--3--|\n', 'V7', 'bIII', 'ii-V', '\u0000', '\ud800', '𝄋', 'é',
  '__proto__', '-1', '1e309', ' ',
] // prettier-ignore

/** Pieces of every notation there is a reader for, some of them many times. */
export const hostileText = fc
  .array(fc.tuple(fc.constantFrom(...PIECES), fc.constantFrom(1, 1, 1, 1, 2, 40)), { maxLength: 40 })
  .map((pieces) => pieces.map(([piece, times]) => piece.repeat(times)).join(''))
