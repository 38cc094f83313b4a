import { entryOf, firstOf, theOne } from '../core/lists'
import fc from 'fast-check'
import { numeralsAsked } from '../core/analysis/sought'
import { parseChart } from '../core/chart/parseChart'
import { tuneDocument } from '../core/tune/document'
import { openDatabase, type Db } from './connect'
import { demoBook } from './demo'
import { seedDemoBook } from './seed'
import {
  countTwice,
  deleteTune,
  deleteTunes,
  eraseDeleted,
  hasAnyTune,
  keepPlace,
  listDeleted,
  listTags,
  listTunes,
  MOST_TAGS,
  nearTitles,
  placeInSongbook,
  restoreDeletedAt,
  restoreTunes,
  SONGBOOK_SORTS,
  tagTunes,
  tuneTitled,
  twinsOf,
} from './songbook'
import { copyTune, createTune, editTune, newDocument, readTune } from './tunes'

let db: Db
beforeEach(() => {
  db = openDatabase(':memory:')
})
afterEach(() => db.$client.close())

const state = (id: string) => readTune(db, id)!
const titles = (asked: Parameters<typeof listTunes>[1] = {}) =>
  listTunes(db, asked).entries.map(({ title }) => title)

describe('the songbook', () => {
  test('begins with the demo book, once: at least six tunes, all of them readable', () => {
    expect(seedDemoBook(db)).toBe(true)
    expect(seedDemoBook(db)).toBe(false)
    const { entries: book } = listTunes(db)
    expect(book.length).toBeGreaterThanOrEqual(6)
    for (const { id, title } of book)
      expect([title, parseChart(state(id).document.text).problems]).toEqual([title, []])
    const charts = demoBook().map(({ document }) => parseChart(document.text))
    expect(new Set(charts.map((chart) => chart.meter.beats)).size).toBeGreaterThan(1)
    expect(charts.some((chart) => chart.bars.length === 12 && chart.key?.mode === 'minor')).toBe(true)
    expect(charts.some((chart) => chart.bars.length === 32)).toBe(true)
    for (const { document } of demoBook()) expect(tuneDocument.safeParse(document).success).toBe(true)
    // Two tunes with a melody and a finished chord melody, one of them in three.
    const sung = demoBook().filter(({ document }) => document.chordMelody.kept.length > 0)
    expect(sung.map(({ document }) => parseChart(document.text).meter.beats).sort()).toEqual([3, 4])
    for (const {
      document: {
        melody,
        chordMelody: { kept },
      },
    } of sung)
      expect(kept.filter(({ note, again }) => note && !again)).toHaveLength(melody.length)
  })
  test('does not bring the demo book back after all tunes were deleted', () => {
    seedDemoBook(db)
    for (const { id } of listTunes(db).entries) deleteTune(db, id)
    expect(seedDemoBook(db)).toBe(false)
    expect(listTunes(db)).toEqual({ entries: [], found: 0, total: 0 })
  })
})

describe('the list', () => {
  beforeEach(() => {
    createTune(db, newDocument('b_side', 'key: F\n| F | C7 | F |'), 1)
    createTune(db, newDocument('Ash', 'key: C\n| C | G7 |'), 2)
    const led = createTune(db, newDocument('Cove', 'key: D\n| D |'), 3)
    editTune(db, led, state(led).revision, { kind: 'colour', colour: 3 }, 4)
    createTune(db, newDocument('100% Rain'), 5)
  })

  test('goes by what was touched last, by title, key, bars, or how far the tune is', () => {
    expect(titles()).toEqual(['100% Rain', 'Cove', 'Ash', 'b_side'])
    expect(titles({ sort: 'title' })).toEqual(['100% Rain', 'Ash', 'b_side', 'Cove'])
    expect(titles({ sort: 'key' }).slice(-3)).toEqual(['Ash', 'Cove', 'b_side'])
    expect(titles({ sort: 'bars' }).slice(-3)).toEqual(['Cove', 'Ash', 'b_side'])
    expect(titles({ sort: 'far' })[0]).toBe('Cove')
    expect(titles({ sort: 'far' }).at(-1)).toBe('100% Rain')
  })
  test('every order has each tune once, and what is cut off is still counted', () => {
    fc.assert(
      fc.property(fc.constantFrom(...SONGBOOK_SORTS), fc.nat(6), (sort, most) => {
        const { entries, found, total } = listTunes(db, { sort, most })
        expect(entries.map(({ title }) => title)).toEqual(titles({ sort }).slice(0, most))
        expect([found, total]).toEqual([4, 4])
      }),
      { numRuns: 40 },
    )
  })
  test('finds by title and by what stands in the chart, all words; signs of the search language are letters', () => {
    expect(titles({ words: ['ash'] })).toEqual(['Ash'])
    expect(titles({ words: ['G7'] })).toEqual(['Ash'])
    expect(titles({ words: ['key: F', 'C7'] })).toEqual(['b_side'])
    expect(titles({ words: ['ash', 'C7'] })).toEqual([])
    expect(titles({ words: ['%'] })).toEqual(['100% Rain'])
    expect(titles({ words: ['_'] })).toEqual(['b_side'])
    expect(listTunes(db, { words: ['c'], most: 1 })).toMatchObject({ found: 3, total: 4 })
  })
  test('a tune that is deleted is in the list of those until it is put back, or erased for good', () => {
    const ash = tuneTitled(db, 'Ash')!
    expect(deleteTune(db, ash, 9)).toBe(true)
    expect(deleteTune(db, ash)).toBe(false)
    expect(titles({ sort: 'title' })).toEqual(['100% Rain', 'b_side', 'Cove'])
    expect([tuneTitled(db, 'Ash'), listDeleted(db)]).toEqual([
      null,
      [{ id: ash, title: 'Ash', deletedAt: 9 }],
    ])
    expect(restoreTunes(db, [ash])).toBe(1)
    // What is in the book is not erased.
    expect(eraseDeleted(db, [ash])).toBe(0)
    deleteTune(db, ash)
    expect(eraseDeleted(db, [ash])).toBe(1)
    expect([listDeleted(db), restoreTunes(db, [ash]), hasAnyTune(db)]).toEqual([[], 0, true])
  })
})

test('a tune is found by what is sung in it, with its chords and its title; and a long list goes on from where it stopped', () => {
  const sung = createTune(db, {
    ...newDocument('Slack Water', '[Bridge] | Eb | Fm7 |'),
    lyrics: [{ bar: 1, beat: 1, text: 'harbour' }],
  })
  for (let at = 0; at < 5; at += 1) createTune(db, newDocument(`Tune ${at}`, '| C |'))
  for (const words of [['harbour'], ['HARB'], ['bridge', 'slack'], ['Fm7', 'harbour']])
    expect(listTunes(db, { words }).entries.map(({ id }) => id)).toEqual([sung])
  expect(listTunes(db, { words: ['text'] }).found).toBe(0)
  const all = titles({ sort: 'title' })
  expect([...titles({ sort: 'title', most: 4 }), ...titles({ sort: 'title', most: 4, from: 4 })]).toEqual(all)
})

describe('a songbook of hundreds', () => {
  const make = (title: string, text: string) => createTune(db, newDocument(title, text))

  test('tags go on and off several tunes at once, are counted, searched, and go with a copy; undo knows nothing of them', () => {
    const [a, b, c] = [make('Alder', '| C |'), make('Birch', '| F |'), make('Cedar', '| G |')]
    const before = state(a).revision
    expect(tagTunes(db, [a, b], 'wedding', true)).toBe(2)
    expect(tagTunes(db, [a, b, c], 'wedding', true)).toBe(1)
    expect(tagTunes(db, [c], 'slow', true)).toBe(1)
    expect(tagTunes(db, [b], 'wedding', false)).toBe(1)
    expect(listTags(db)).toEqual([
      { tag: 'slow', tunes: 1 },
      { tag: 'wedding', tunes: 2 },
    ])
    expect(titles({ tag: 'wedding', sort: 'title' })).toEqual(['Alder', 'Cedar'])
    expect(titles({ tag: 'wed' })).toEqual([])
    expect(titles({ words: ['wed'], sort: 'title' })).toEqual(['Alder', 'Cedar'])
    expect([state(a).revision, state(a).undo]).toEqual([before, null])
    const outcome = copyTune(db, c)
    const copy = outcome.kind === 'copied' ? outcome.id : ''
    expect(theOne(listTunes(db).entries, ({ id }) => id === copy).tags).toEqual(['slow', 'wedding'])
    deleteTunes(db, [c, copy])
    expect(listTags(db)).toEqual([{ tag: 'wedding', tunes: 1 }])
    for (let at = 0; at < MOST_TAGS + 3; at += 1) tagTunes(db, [b], `tag ${at}`, true)
    expect(theOne(listTunes(db).entries, ({ id }) => id === b).tags).toHaveLength(MOST_TAGS)
  })
  test('numerals and walks find changes in any key', () => {
    make('Far Shore', 'key: Eb\n| Eb | Fm7 Bb7 | Eb | Cm7 |')
    make('Near Shore', 'key: D\n| D | Em | F#m | G |')
    const asked = (q: string) => titles({ words: q.split(' '), numerals: numeralsAsked(q) })
    expect(asked('ii V I')).toEqual(['Far Shore'])
    make('Half Way', 'key: C\n| Dm7 | G7 | F | F |')
    expect(asked('ii V I')).toEqual(['Far Shore'])
    expect(asked('I ii iii IV')).toEqual(['Near Shore'])
    expect(asked('walking up')).toEqual(['Near Shore'])
    expect(asked('shore walking')).toEqual(['Near Shore'])
    expect(asked('iv bVI')).toEqual([])
  })
  test('a misspelt title is near one that is there', () => {
    make('Kestrel at Noon', '| C |')
    make('Pottery Lane', '| C |')
    expect(firstOf(nearTitles(db, 'kestral')).title).toBe('Kestrel at Noon')
    expect(firstOf(nearTitles(db, 'potery lan')).title).toBe('Pottery Lane')
    expect(nearTitles(db, 'xylophone')).toEqual([])
  })
  test('what stands twice is found by its title, or by its changes in another key', () => {
    const changes = '| Dm7 | G7 | C6 Am7 | Dm7 G7 |'
    const [a, b] = [make('Quay', changes), make('Jetty', 'key: F\n| Gm7 | C7 | F6 Dm7 | Gm7 C7 |')]
    const [c, d] = [make('Pier', '| C |'), make(' pier ', '| Bb |')]
    make('Other', '| Dm7 | G7 | Em7 Am7 | Dm7 G7 |')
    expect(countTwice(db)).toBe(4)
    expect(titles({ twice: true }).sort()).toEqual([' pier ', 'Jetty', 'Pier', 'Quay'])
    const twins = twinsOf(db, [a, b, c, d])
    expect(twins.get(a)).toEqual({ title: 'Jetty', equal: 'changes' })
    expect(entryOf(twins, c).equal).toBe('title')
    deleteTune(db, b)
    expect(countTwice(db)).toBe(2)
    // The chart of one becomes another.
    editTune(db, d, state(d).revision, { kind: 'title', title: 'Mole' })
    expect(countTwice(db)).toBe(0)
  })
  test('several deleted at once come back at once, others that were deleted do not', () => {
    const [a, b, c] = [make('A', ''), make('B', ''), make('C', '')]
    deleteTune(db, a, 5)
    expect(deleteTunes(db, [a, b, c], 9)).toBe(2)
    expect(restoreDeletedAt(db, 9)).toBe(2)
    expect(titles({ sort: 'title' })).toEqual(['B', 'C'])
  })
  test('where a tune was left is kept without being a change of it', () => {
    const id = make('Left', '| C | F |')
    const { touchedAt } = firstOf(listTunes(db).entries)
    expect(placeInSongbook(db, id)).toBeNull()
    expect(keepPlace(db, id, { step: 'lines', slot: '2:1' })).toBe(true)
    expect(listTunes(db).entries[0]).toMatchObject({ touchedAt, place: { step: 'lines', slot: '2:1' } })
    deleteTune(db, id)
    expect(keepPlace(db, id, { step: 'chart', slot: null })).toBe(false)
  })
})
