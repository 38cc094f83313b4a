import { itemAt, theOne } from '../../core/lists'
import { createHash } from 'node:crypto'
import { createWriteStream, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { unzipSync, zipSync } from 'fflate'
import { GRADES } from '../../core/practice/grade'
import { TEMPLATES } from '../../core/sheet/sheetLayout'
import { newDocument, type TuneDocument } from '../../core/tune/document'
import { openDatabase, type Db } from '../connect'
import { keepGrip, listGrips } from '../grips'
import { keepLayout, layoutsOf } from '../layouts'
import { changePlayer, countLiking, readLiking, readPlayer } from '../player'
import { everyPass, goalsOf, keepPasses, practisedOf, setGoal } from '../practice'
import { passes, revisions } from '../schema'
import { addToSet, changeInSet, createSet, listSets, readSet } from '../sets'
import { createTune, editTune, readTuneAnyhow, stepHistory } from '../tunes'
import { deleteTune, keepPlace, listDeleted, listTunes, tagTunes } from '../songbook'
import { BackupFault, MANIFEST } from '../../core/backup/format'
import { seedDemoBook } from '../seed'
import { restoreBackup, type RestoreAsked } from './restore'
import { writeBackup } from './write'

jest.setTimeout(240_000)
const folder = mkdtempSync(join(tmpdir(), 'backup-'))
let made = 0
const BESIDE: RestoreAsked = { different: 'beside', player: 'keep' }

async function backupOf(db: Db, history = true, tunes?: string[]): Promise<string> {
  const file = join(folder, `${(made += 1)}.zip`)
  await writeBackup(db, createWriteStream(file), { history, ...(tunes ? { tunes } : {}) })
  return file
}

let db: Db
let other: Db
beforeEach(() => {
  db = openDatabase(':memory:')
  other = openDatabase(':memory:')
})
afterEach(() => {
  db.$client.close()
  other.$client.close()
})

/** All of a book that a player could miss. */
function everythingIn(book: Db) {
  const ids = [...listTunes(book).entries, ...listDeleted(book)].map(({ id }) => id).sort()
  return {
    tunes: ids.map((id) => readTuneAnyhow(book, id)),
    deleted: listDeleted(book),
    steps: book.select().from(revisions).orderBy(revisions.id).all(),
    layouts: ids.map((id) => layoutsOf(book, id)),
    goals: ids.map((id) => goalsOf(book, id)),
    practised: ids.map((id) => [...practisedOf(book, id)]),
    passes: book.select().from(passes).orderBy(passes.id).all(),
    grips: listGrips(book),
    player: readPlayer(book),
    liking: readLiking(book),
    sets: listSets(book).map(({ id }) => readSet(book, id)),
  }
}

const TEXTS = [
  '| C | F | G7 | C |',
  'key: Am\n[A] |: Am | Dm :|\n',
  '',
  'key: F\nmeter: 3/4\n| F | Bb | C7 |',
]
interface Made {
  title: string
  text: number
  edits: number
  undone: boolean
  deleted: boolean
  laidOut: boolean
  passes: number
}
const arbitraryBook = fc.record({
  tunes: fc.array(
    fc.record({
      title: fc.string({ minLength: 1, maxLength: 30 }).filter((text) => text.trim() !== ''),
      text: fc.nat({ max: TEXTS.length - 1 }),
      edits: fc.nat({ max: 4 }),
      undone: fc.boolean(),
      deleted: fc.boolean(),
      laidOut: fc.boolean(),
      passes: fc.nat({ max: 3 }),
    }),
    { maxLength: 4 },
  ),
  note: fc.string({ maxLength: 40 }),
  tempo: fc.option(fc.integer({ min: 40, max: 200 })),
  leftHanded: fc.boolean(),
})

function fill(
  book: Db,
  {
    tunes,
    note,
    tempo,
    leftHanded,
  }: { tunes: Made[]; note: string; tempo: number | null; leftHanded: boolean },
) {
  const set = createSet(book, 'Evening', 1_000)
  for (const { title, text, edits, undone, deleted, laidOut, passes: played } of tunes) {
    const id = createTune(book, newDocument(title.trim(), TEXTS[text]))
    for (let at = 0; at < edits; at += 1)
      editTune(
        book,
        id,
        readTuneAnyhow(book, id)!.revision,
        { kind: 'text', text: `${TEXTS[text]}\n| Dm7 |${at}` },
        1_000 + at,
      )
    if (undone) stepHistory(book, id, readTuneAnyhow(book, id)!.revision, 'undo', 2_000)
    if (laidOut) keepLayout(book, id, 'Mine', TEMPLATES.lead.layout, 3_000)
    setGoal(book, id, { kind: 'passage', item: 'bars 1 to 4', tempo: 120, wanted: true }, 4_000)
    addToSet(book, set, id)
    keepPasses(
      book,
      Array.from({ length: played }, (_, at) => ({
        id: crypto.randomUUID(),
        tuneId: id,
        title,
        kind: 'passage' as const,
        item: 'bars 1 to 4',
        fromBar: 1,
        toBar: 4,
        key: 'C',
        tempo: 80 + at,
        goal: null,
        grade: itemAt(GRADES, at % GRADES.length),
        seconds: 20,
        at: 1_700_000_000_000 + at * 86_400_000,
        zone: 'Europe/Vienna',
        note,
        hurt: false,
      })),
    )
    if (deleted) deleteTune(book, id, 5_000)
  }
  const [row] = readSet(book, set)!.tunes
  if (row) changeInSet(book, set, row.id, { tempo, note })
  keepGrip(book, { frets: [null, 3, 2, 0, 1, 0], symbol: 'C', tags: ['open'], note, instrument: null }, 6_000)
  changePlayer(book, { leftHanded })
  countLiking(book, 'tritone', 7_000)
}

test('whatever is in a book comes back equal in an empty one, and changes nothing when it is brought in again', async () => {
  await fc.assert(
    fc.asyncProperty(arbitraryBook, async (book) => {
      const [from, into] = [openDatabase(':memory:'), openDatabase(':memory:')]
      try {
        fill(from, book)
        const file = await backupOf(from)
        const before = everythingIn(from)
        await restoreBackup(into, file, BESIDE)
        expect(everythingIn(into)).toEqual(before)
        const again = await restoreBackup(into, file, BESIDE)
        expect(again).toMatchObject({
          brought: 0,
          same: book.tunes.length,
          beside: [],
          grips: 0,
          sets: 0,
          passes: 0,
        })
        expect(everythingIn(into)).toEqual(before)
      } finally {
        from.$client.close()
        into.$client.close()
      }
    }),
    { numRuns: 20 },
  )
})

const aBook = (): string => {
  const id = createTune(db, newDocument('Kept', '| C | F |'))
  editTune(db, id, readTuneAnyhow(db, id)!.revision, { kind: 'title', title: 'Kept Well' })
  return id
}

test('without its history a tune comes back as it is, with one step', async () => {
  const id = aBook()
  await restoreBackup(other, await backupOf(db, false), BESIDE)
  expect(readTuneAnyhow(other, id)).toMatchObject({
    document: readTuneAnyhow(db, id)!.document,
    revision: readTuneAnyhow(db, id)!.revision,
    undo: null,
  })
})

test('a tune that has become another since stands beside the one of the backup, once, or is left out as asked', async () => {
  const id = aBook()
  const file = await backupOf(db)
  const then = readTuneAnyhow(db, id)!.document
  editTune(db, id, readTuneAnyhow(db, id)!.revision, { kind: 'text', text: '| Gm |' })
  const now = readTuneAnyhow(db, id)!
  expect(await restoreBackup(db, file, { ...BESIDE, different: 'leave' })).toMatchObject({
    left: ['Kept Well'],
    beside: [],
  })
  expect(listTunes(db).total).toBe(1)
  const said = await restoreBackup(db, file, BESIDE)
  expect(said.beside).toEqual([expect.stringMatching(/^Kept Well \(backup of \d{4}-\d\d-\d\d\)$/)])
  expect(readTuneAnyhow(db, id)).toEqual(now)
  const copy = theOne(listTunes(db).entries, (one) => one.id !== id)
  expect(readTuneAnyhow(db, copy.id)!.document).toEqual({ ...then, title: said.beside[0] })
  // Its own steps came with it.
  expect(readTuneAnyhow(db, copy.id)!.undo).toBe('brought in from a backup')
  expect(await restoreBackup(db, file, BESIDE)).toMatchObject({ beside: [], same: 1 })
  expect(listTunes(db).total).toBe(2)
})

test('a tune that was deleted here since is told, and stays where it is', async () => {
  const id = aBook()
  const file = await backupOf(db)
  deleteTune(db, id)
  expect(await restoreBackup(db, file, BESIDE)).toMatchObject({ same: 1, deleted: ['Kept Well'] })
  expect(listDeleted(db).map((one) => one.id)).toEqual([id])
})

test('the settings of a player stay, unless those of the backup are asked for', async () => {
  changePlayer(db, { leftHanded: true })
  const file = await backupOf(db)
  // A setting that was touched is the player's own, also where it is the usual one.
  changePlayer(other, { leftHanded: true })
  changePlayer(other, { leftHanded: false })
  await restoreBackup(other, file, BESIDE)
  expect(readPlayer(other).leftHanded).toBe(false)
  await restoreBackup(other, file, { ...BESIDE, player: 'take' })
  expect(readPlayer(other).leftHanded).toBe(true)
})

test('one tune alone is a file that any book takes, with nothing else of the book in it', async () => {
  const id = aBook()
  createTune(db, newDocument('Not Sent'))
  const file = await backupOf(db, false, [id])
  expect(Object.keys(unzipSync(new Uint8Array(readFileSync(file)))).sort()).toEqual(
    [MANIFEST, `tunes/${id}.json`, `tunes/${id}.txt`].sort(),
  )
  expect(await restoreBackup(other, file, BESIDE)).toMatchObject({ brought: 1, player: false })
  expect(listTunes(other).entries.map(({ title }) => title)).toEqual(['Kept Well'])
})

/** The backup with its files changed, as a zip again. */
async function tampered(change: (files: Record<string, Uint8Array>) => void): Promise<string> {
  const files = unzipSync(new Uint8Array(readFileSync(await backupOf(db))))
  change(files)
  const file = join(folder, `${(made += 1)}.zip`)
  writeFileSync(file, zipSync(files))
  return file
}
const refused = async (file: string): Promise<string> => {
  const before = everythingIn(other)
  const error: unknown = await restoreBackup(other, file, BESIDE).catch((thrown: unknown) => thrown)
  expect(error).toBeInstanceOf(BackupFault)
  expect(everythingIn(other)).toEqual(before)
  return (error as Error).message
}
const letters = (text: string) => new TextEncoder().encode(text)

test('a file that is cut anywhere, or has any byte flipped, is refused or brings in what was kept, and changes nothing else', async () => {
  aBook()
  const whole = readFileSync(await backupOf(db))
  await fc.assert(
    fc.asyncProperty(
      fc.double({ min: 0, max: 0.999, noNaN: true }),
      fc.integer({ min: 1, max: 255 }),
      async (share, flip) => {
        const at = Math.floor(share * whole.length)
        const file = join(folder, 'broken.zip')
        writeFileSync(file, whole.subarray(0, at))
        await refused(file)
        const flipped = Buffer.from(whole)
        flipped[at] = flipped[at]! ^ flip
        writeFileSync(file, flipped)
        // Times and flags of the zip's directory say nothing of what is in it.
        await restoreBackup(other, file, BESIDE).catch((error: unknown) =>
          expect(error).toBeInstanceOf(BackupFault),
        )
        for (const { id } of listTunes(other).entries)
          expect(readTuneAnyhow(other, id)!.document).toEqual(readTuneAnyhow(db, id)!.document)
      },
    ),
    { numRuns: 60 },
  )
})

test('what is no backup, of a later version, not whole, or holds more than it names says so', async () => {
  const id = aBook()
  const text = join(folder, 'text.zip')
  writeFileSync(text, 'no zip at all')
  expect(await refused(text)).toContain('cannot be read as a zip')
  expect(await refused(await tampered((files) => void delete files[MANIFEST]))).toContain(
    'has no manifest.json',
  )
  expect(await refused(await tampered((files) => void delete files[`tunes/${id}.json`]))).toContain(
    'is missing',
  )
  expect(await refused(await tampered((files) => (files['more.txt'] = letters('x'))))).toContain(
    'does not name',
  )
  expect(await refused(await tampered((files) => (files[`tunes/${id}.txt`] = letters('| X |'))))).toMatch(
    /not as long|not what it was/,
  )
  const manifestWith = (change: object) => (files: Record<string, Uint8Array>) => {
    const read = JSON.parse(new TextDecoder().decode(files[MANIFEST])) as object
    files[MANIFEST] = letters(JSON.stringify({ ...read, ...change }))
  }
  expect(await refused(await tampered(manifestWith({ version: 99 })))).toContain('later version')
  expect(await refused(await tampered(manifestWith({ format: 'else' })))).toContain("another program's")
})

test('tags and the place where a tune was left come back; a backup of the form before has none, and takes none away', async () => {
  const id = aBook()
  tagTunes(db, [id], 'wedding', true)
  keepPlace(db, id, { step: 'lines', slot: '2:1' })
  await restoreBackup(other, await backupOf(db), BESIDE)
  const listed = () => theOne(listTunes(other).entries, (one) => one.id === id)
  expect(listed()).toMatchObject({ tags: ['wedding'], place: { step: 'lines', slot: '2:1' } })
  const before = await tampered((files) => {
    const kept = JSON.parse(new TextDecoder().decode(files[`tunes/${id}.json`])) as Record<string, unknown>
    delete kept.tags
    delete kept.place
    const written = letters(JSON.stringify(kept))
    files[`tunes/${id}.json`] = written
    const manifest = JSON.parse(new TextDecoder().decode(files[MANIFEST])) as { files: object }
    const sha256 = createHash('sha256').update(written).digest('hex')
    files[MANIFEST] = letters(
      JSON.stringify({
        ...manifest,
        version: 1,
        files: { ...manifest.files, [`tunes/${id}.json`]: { bytes: written.length, sha256 } },
      }),
    )
  })
  await restoreBackup(other, before, BESIDE)
  expect(listed().tags).toEqual(['wedding'])
  const third = openDatabase(':memory:')
  await restoreBackup(third, before, BESIDE)
  expect(listTunes(third).entries.find((one) => one.id === id)).toMatchObject({ tags: [], place: null })
  third.$client.close()
})

test('a path that climbs out, and a bomb, are refused before anything is unpacked', async () => {
  aBook()
  expect(await refused(await tampered((files) => (files['../out.txt'] = letters('x'))))).toContain('damaged')
  expect(await refused(await tampered((files) => (files['bomb.txt'] = new Uint8Array(8_000_000))))).toContain(
    'would unpack to',
  )
})

test('a document of a form this version does not know is refused with the whole file', async () => {
  const id = aBook()
  const { createHash } = await import('node:crypto')
  const file = await tampered((files) => {
    const name = `tunes/${id}.json`
    const kept = JSON.parse(new TextDecoder().decode(files[name])) as {
      version: number
      document: TuneDocument
    }
    files[name] = letters(JSON.stringify({ ...kept, version: 99 }))
    const manifest = JSON.parse(new TextDecoder().decode(files[MANIFEST])) as {
      files: Record<string, object>
    }
    manifest.files[name] = {
      bytes: files[name].length,
      sha256: createHash('sha256').update(files[name]).digest('hex'),
    }
    files[MANIFEST] = letters(JSON.stringify(manifest))
  })
  expect(await refused(file)).toContain('at version')
})

test('the log comes back whole, passes that were taken out too', async () => {
  const id = aBook()
  fill(db, { tunes: [], note: '', tempo: null, leftHanded: false })
  const log = Array.from({ length: 4_500 }, (_, at) => ({
    id: crypto.randomUUID(),
    tuneId: at % 2 ? id : null,
    title: 'Kept Well',
    kind: 'passage' as const,
    item: `bars ${at % 7}`,
    fromBar: 1,
    toBar: 2,
    key: null,
    tempo: 90,
    goal: 100,
    grade: 'clean' as const,
    seconds: 3,
    at: 1_700_000_000_000 + at,
    zone: 'UTC',
    note: '',
    hurt: false,
  }))
  keepPasses(db, log)
  expect(await restoreBackup(other, await backupOf(db), BESIDE)).toMatchObject({ passes: 4_500 })
  expect(everyPass(other)).toEqual(everyPass(db))
})

const SEEDED = Date.UTC(2026, 4, 1)
test('a backup of a used book takes the place of a demo that nobody has touched, with its player; nothing is there twice', async () => {
  seedDemoBook(db, SEEDED)
  const own = createTune(db, newDocument('Mine', '| C |'), SEEDED + 1_000_000)
  const demo = theOne(listTunes(db).entries, ({ title }) => title === 'Four Planks')
  editTune(
    db,
    demo.id,
    readTuneAnyhow(db, demo.id)!.revision,
    { kind: 'tempo', tempo: 71 },
    SEEDED + 1_000_001,
  )
  changePlayer(db, { leftHanded: true })
  const file = await backupOf(db)
  seedDemoBook(other, SEEDED + 2_000_000)
  await restoreBackup(other, file, BESIDE)
  expect(everythingIn(other)).toEqual(everythingIn(db))
  expect(readTuneAnyhow(other, own)).not.toBeNull()
})

test('into a book that is in use an untouched demo does not come a second time, nor its set and its passes', async () => {
  seedDemoBook(db, SEEDED)
  const file = await backupOf(db)
  seedDemoBook(other, SEEDED + 2_000_000)
  createTune(other, newDocument('Mine', '| C |'), SEEDED + 3_000_000)
  const before = everythingIn(other)
  const said = await restoreBackup(other, file, BESIDE)
  expect(said).toMatchObject({ same: 8, brought: 0, sets: 0, passes: 0, beside: [] })
  expect({ ...everythingIn(other), grips: [] }).toEqual({ ...before, grips: [] })
})
