import { firstOf, itemAt } from '../lists'
import { answer, answerLine } from './answerRequest'

type Any = Record<string, never>
const ask = (request: object): Any => JSON.parse(JSON.stringify(answerLine(JSON.stringify(request)))) as Any
const good = (request: object): Any => {
  const reply = ask(request)
  expect(reply).toMatchObject({ ok: true })
  return reply
}
const error = (request: object) => ask(request)['error']

interface Led {
  lines: { steps: unknown[]; voicings: { frets: (number | null)[] }[] }[]
}

const TEXT = 'key: C\n| Dm7 | G7 | Cmaj7 | A7 |'
const GRIPS = [
  [null, 5, 7, 5, 6, null],
  [3, null, 3, 4, 3, null],
  [null, 3, 5, 4, 5, null],
]
const melody = [
  { bar: 1, beat: 1, beats: 2, note: 'F4' },
  { bar: 1, beat: 3, beats: 2, note: 'E4' },
  { bar: 3, beat: 1, beats: 4, note: 'G4' },
]

describe('lead', () => {
  test.each(['smooth', 'contrary', 'tension', 'bass', 'top', 'position', 'drone'])('style %s', (style) => {
    const { lines } = good({ do: 'lead', text: TEXT, style }) as unknown as {
      lines: {
        voicings: { symbol: string; added: string[] }[]
        steps: unknown[]
        parts: Record<string, number>
        cost: number
      }[]
    }
    expect(
      firstOf(lines).voicings.map(({ symbol, added }) => (added.length > 0 ? symbol.slice(0, 1) : symbol)),
    ).toEqual(
      firstOf(lines).voicings.map(({ added }, at) => {
        const plain = itemAt(['Dm7', 'G7', 'Cmaj7', 'A7'], at)
        return added.length > 0 ? plain.slice(0, 1) : plain
      }),
    )
    // A drone may be a free tension of some chords, which are called so.
    if (style !== 'drone')
      expect(firstOf(lines).voicings.some(({ added }) => added.length > 0)).toBe(style === 'tension')
    expect(firstOf(lines).steps).toHaveLength(3)
    expect(Object.values(firstOf(lines).parts).reduce((sum, part) => sum + part, 0)).toBeCloseTo(
      firstOf(lines).cost,
      2,
    )
  })
  test('a melody is on top where it sounds; a loop has a step more; window and drone are kept to', () => {
    const { lines } = good({ do: 'lead', text: TEXT, melody }) as unknown as {
      lines: { voicings: { notes: string[]; frets: (number | null)[] }[]; steps: unknown[] }[]
    }
    expect(firstOf(firstOf(lines).voicings).notes).toContain('F4')
    expect(itemAt(firstOf(lines).voicings, 2).notes).toContain('G4')
    expect(
      firstOf(
        (
          good({
            do: 'lead',
            text: TEXT,
            loop: true,
            limits: { frets: [0, 4], notes: [3, 4] },
          }) as unknown as Led
        ).lines,
      ).steps,
    ).toHaveLength(4)
    const window = firstOf(
      (good({ do: 'lead', text: TEXT, style: 'position', window: [5, 9] }) as unknown as Led).lines,
    ).voicings.flatMap(({ frets }) => frets.filter((fret): fret is number => fret !== null && fret > 0))
    expect([Math.min(...window) >= 5, Math.max(...window) <= 9]).toEqual([true, true])
    for (const { frets } of firstOf(
      (good({ do: 'lead', text: TEXT, style: 'drone', drone: 2 }) as unknown as Led).lines,
    ).voicings)
      expect(frets[4]).toBe(0)
    expect(error({ do: 'lead', text: TEXT, style: 'drone', drone: 8 })).toMatchObject({
      code: 'bad-field',
      where: 'drone',
    })
  })
})

describe('pull', () => {
  const pull = (more: object) => ({
    do: 'pull',
    symbols: ['Dm7', 'G7', 'Cmaj7'],
    voicings: GRIPS,
    index: 0,
    string: 2,
    to: 7,
    ...more,
  })
  test('by fret or by pitch', () => {
    expect(good(pull({}))).toMatchObject({ frets: [null, 5, 7, 5, 7, null], playable: true, lost: ['b3'] })
    expect(good(pull({ to: 'F#4' }))).toEqual(good(pull({})))
    expect(firstOf(good(pull({}))['names'] as unknown as { symbol: string }[]).symbol).toBe('D7')
  })
  test('what cannot be pulled says why', () => {
    expect(error(pull({ string: 6 }))).toMatchObject({ code: 'bad-field', where: 'string' })
    expect(error(pull({ index: 3 }))).toMatchObject({ code: 'bad-field', where: 'index' })
    expect(error(pull({ to: 'C2' }))).toMatchObject({ code: 'bad-field', where: 'to' })
    expect(error(pull({ voicings: GRIPS.slice(1) }))).toMatchObject({ code: 'bad-field', where: 'voicings' })
  })
})

test('arrange: substitutions and grips together, each line with its chart and its choices', () => {
  const { lines } = good({ do: 'arrange', text: TEXT, distance: 0.5, count: 2 }) as unknown as {
    lines: { text: string; choices: unknown[]; voicings: unknown[]; places: unknown[] }[]
  }
  for (const line of lines) {
    expect(line.choices.length).toBeGreaterThan(0)
    expect(line.places).toHaveLength(line.voicings.length)
    expect(good({ do: 'chart', text: line.text })['bars']).toHaveLength(4)
  }
  expect(error({ do: 'arrange', text: '', distance: 0.5 })).toMatchObject({ code: 'no-chord' })
})

test.each([
  ['arrange', { do: 'arrange', text: TEXT, distance: 0.5, count: 2 }],
  ['lead', { do: 'lead', text: TEXT, count: 2 }],
  ['harmonise', { do: 'harmonise', text: TEXT, melody, count: 2 }],
])('%s says how far it is on its way, ever further', (_, request) => {
  const shares: number[] = []
  const reply = answer(request, (done, of) => shares.push(done / of) > 0)
  expect(reply).toEqual(answer(request))
  expect(shares.length).toBeGreaterThan(1)
  expect(shares).toEqual([...shares].sort((a, b) => a - b))
  expect(Math.max(...shares)).toBeLessThanOrEqual(1)
})

test('harmonise: one voicing for each melody note, the melody on top; scale: one for each step', () => {
  const { lines } = good({ do: 'harmonise', text: TEXT, melody, count: 2 }) as unknown as {
    lines: { voicings: { notes: string[]; melody: string; under: string }[] }[]
  }
  expect(firstOf(lines).voicings.map((one) => one.melody)).toEqual(['F4', 'E4', 'G4'])
  for (const one of firstOf(lines).voicings) expect(one.notes).toContain(one.melody)
  const scale = good({ do: 'scale', kind: 'sixth-diminished', chord: 'Am6' }) as unknown as {
    scale: string[]
    voicings: { symbol: string }[]
  }
  expect(scale.scale).toEqual(['A', 'B', 'C', 'D', 'E', 'F', 'F#', 'G#'])
  expect(scale.voicings.map(({ symbol }) => symbol)).toEqual([
    'Am6',
    'G#dim7',
    'Am6',
    'G#dim7',
    'Am6',
    'G#dim7',
    'Am6',
    'G#dim7',
  ])
  expect(error({ do: 'scale', kind: 'sixth-diminished', chord: 'G7' })).toMatchObject({
    code: 'bad-field',
    where: 'chord',
  })
})

test('export and import of MIDI go round', () => {
  const file = good({ do: 'export', text: TEXT, melody, format: 'midi' }) as unknown as {
    content: string
    encoding: string
  }
  expect(file.encoding).toBe('base64')
  expect(good({ do: 'import', content: file.content, format: 'midi' })['melody']).toEqual(melody)
  expect(error({ do: 'import', content: 'AAAA', format: 'midi' })).toMatchObject({ code: 'bad-file' })
  for (const format of ['musicxml', 'chordpro', 'tab', 'abc'])
    expect(good({ do: 'export', text: TEXT, format })['content']).toEqual(expect.any(String))
})

test('voicings that no limits leave say which limit it is', () => {
  expect(good({ do: 'voicings', symbol: 'Cmaj9', limits: { top: 'F#4' } })).toMatchObject({
    total: 0,
    tooTight: [{ limit: 'top' }],
    why: expect.stringContaining('limits.top'),
  })
})

describe('melodies', () => {
  test('textures and densities of harmonise; a melody goes round through every format that holds notes', () => {
    for (const texture of ['shells', 'drop 2', 'fourths', 'two voices', 'two lines']) {
      const { lines, left } = good({
        do: 'harmonise',
        text: TEXT,
        melody,
        texture,
        density: 'note',
        tempo: 80,
      }) as unknown as {
        lines: { voicings: { notes: string[]; melody: string | null; kind: string }[] }[]
        left: number
      }
      expect(left).toBe(0)
      for (const one of firstOf(lines).voicings) if (one.melody) expect(one.notes).toContain(one.melody)
    }
    for (const format of ['midi', 'musicxml', 'abc']) {
      const { content } = good({ do: 'export', text: TEXT, melody, format }) as unknown as { content: string }
      expect(good({ do: 'import', content, format })['melody']).toEqual(melody)
    }
  })
  test('bad files say what is accepted', () => {
    for (const [format, content] of [
      ['musicxml', '<a>'],
      ['abc', 'hello'],
      ['midi', '????'],
    ])
      expect(error({ do: 'import', content, format })).toMatchObject({
        code: 'bad-file',
        message: expect.stringContaining('Accepted'),
      })
  })
  test('scales in sevenths and fourths, of a key or of given notes; introductions and endings', () => {
    const scale = (more: object) =>
      good({ do: 'scale', ...more }) as unknown as {
        scale: string[]
        voicings: { symbol: string; note: string; notes: string[] }[]
      }
    const sevenths = scale({ kind: 'sevenths', key: 'G', tone: 5 })
    expect(sevenths.voicings.map(({ symbol }) => symbol)).toEqual([
      'Cmaj7',
      'D7',
      'Em7',
      'F#m7b5',
      'Gmaj7',
      'Am7',
      'Bm7',
      'Cmaj7',
    ])
    for (const { note, notes } of scale({ kind: 'fourths', key: 'F', notes: ['A4', 'C5'] }).voicings)
      expect(notes.at(-1)).toBe(note)
    expect(error({ do: 'scale', kind: 'thirds', key: 'C' })).toMatchObject({
      code: 'bad-field',
      where: 'kind',
    })
    expect(good({ do: 'ends', key: 'Eb' })['ends']).toContainEqual(
      expect.objectContaining({ name: 'turnaround', where: 'before', bars: ['Ebmaj7 C7', 'Fm7 Bb7'] }),
    )
  })
})
