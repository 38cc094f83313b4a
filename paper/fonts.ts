import { firstOf } from '../core/lists'
import * as fontkit from 'fontkit'
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { join } from 'node:path'
import type { Font } from 'fontkit'
import { sfntOf } from './sfnt'

/**
 * Faces of the sheets, as the application sets them: a serif for titles and symbols, a sans for
 * words, signs of music.
 */
export const FACES = ['serif', 'serif-bold', 'sans', 'sans-bold', 'music'] as const
export type Face = (typeof FACES)[number]

/** The files of a face, the most usual letters first. They ship with the application. */
const FILES: Readonly<Record<Face, readonly string[]>> = {
  serif: filesOf('@fontsource/vollkorn', 'vollkorn', '400'),
  'serif-bold': filesOf('@fontsource/vollkorn', 'vollkorn', '600'),
  sans: filesOf('@fontsource/source-sans-3', 'source-sans-3', '400'),
  'sans-bold': filesOf('@fontsource/source-sans-3', 'source-sans-3', '600'),
  music: ['@fontsource/noto-music/files/noto-music-music-400-normal.woff'],
}
function filesOf(folder: string, name: string, weight: string): string[] {
  return ['latin', 'latin-ext', 'greek', 'cyrillic', 'cyrillic-ext', 'vietnamese'].map(
    (letters) => `${folder}/files/${name}-${letters}-${weight}-normal.woff`,
  )
}

interface Loaded {
  bytes: Buffer
  font: Font
}
const loaded = new Map<string, Loaded>()

/** A font file of the application, read once. */
export function fontFile(file: string): Loaded {
  const known = loaded.get(file)
  if (known) return known
  const bytes = sfntOf(readFileSync(join(packages(), file)))
  const font = fontkit.create(bytes)
  if (!('layout' in font)) throw new Error(`${file} is a collection and not a font.`)
  const one = { bytes, font }
  loaded.set(file, one)
  return one
}
/** Where packages are installed. */
const packages = (): string =>
  join(
    createRequire(join(process.cwd(), 'package.json')).resolve('@fontsource/noto-music/package.json'),
    '../../..',
  )

/** Letters of a text that one file can set. */
export interface Run {
  text: string
  file: string
}

/**
 * A text in the files that have its letters; a letter that none has stays with the first, which
 * sets a blank box.
 */
export function fontRunsOf(text: string, face: Face): Run[] {
  const runs: Run[] = []
  for (const letter of text) {
    const file = fileFor(letter, face)
    const last = runs.at(-1)
    if (last?.file === file) last.text += letter
    else runs.push({ text: letter, file })
  }
  return runs
}

function fileFor(letter: string, face: Face): string {
  const code = letter.codePointAt(0)!
  return FILES[face].find((file) => fontFile(file).font.hasGlyphForCodePoint(code)) ?? firstOf(FILES[face])
}

/** Letters that no file of a face has. */
export const unprintable = (text: string, face: Face): string[] => [
  ...new Set(
    [...text].filter(
      (letter) =>
        !FILES[face].some((file) => fontFile(file).font.hasGlyphForCodePoint(letter.codePointAt(0)!)),
    ),
  ),
]

/** Figures as tall as capitals, as symbols need them. */
export const FEATURES: ('lnum' | 'kern')[] = ['lnum', 'kern']

const widths = new Map<string, number>()

/** How wide a run is at a size of 1. */
export function runWidth({ text, file }: Run): number {
  const key = `${file} ${text}`
  const known = widths.get(key)
  if (known !== undefined) return known
  const { font } = fontFile(file)
  const width = font.layout(text, FEATURES).advanceWidth / font.unitsPerEm
  if (widths.size > MOST_WIDTHS) widths.clear()
  widths.set(key, width)
  return width
}
/** Words whose width is remembered. */
const MOST_WIDTHS = 20_000
