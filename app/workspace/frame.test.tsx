/** What stands around the rooms, read back from what the server draws of it. */
import type { ReactElement } from 'react'
import { renderToStaticMarkup } from 'react-dom/server'
import { MemoryRouter } from 'react-router'
import { newDocument, type TuneDocument } from '../../core/tune/document'
import { DEFAULT_PLAYER, FIRST_STEPS, type PlayerSettings } from '../../core/player/playerSettings'
import { parseChart } from '../../core/chart/parseChart'
import { barInWords } from '../services/notation/BarHead'
import { SungWords } from '../services/notation/SungWords'
import { PlayerContext } from '../services/player/PlayerContext'
import type { SaveStatus, TuneSession } from '../services/tune/session'
import { ROOMS, roomNamed } from '../steps/rooms'
import { FirstStrip } from './FirstStrip'
import { Header } from './Header'
import { KeepingNotices } from './KeepingNotices'

jest.mock('../services/workers/workerPool', () => ({ WORKER_POOLS: {}, WorkerFault: class extends Error {} }))

const nothing = () => undefined
const drawn = (element: ReactElement, firstSteps: PlayerSettings['firstSteps'] = 'away') =>
  renderToStaticMarkup(
    <MemoryRouter>
      <PlayerContext.Provider value={{ settings: { ...DEFAULT_PLAYER, firstSteps }, liking: {} } as never}>
        {element}
      </PlayerContext.Provider>
    </MemoryRouter>,
  )
/** The words of a drawing, and its buttons. */
const wordsOf = (page: string) =>
  page
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()
const buttonsOf = (page: string) =>
  [...page.matchAll(/<button[^>]*>(.*?)<\/button>/g)].map(([, one]) => wordsOf(one!))

describe('the first steps', () => {
  const strip = (firstSteps: PlayerSettings['firstSteps'], at: string, tune: Partial<TuneDocument> = {}) =>
    drawn(
      <FirstStrip
        room={roomNamed(at)!}
        rooms={ROOMS}
        document={{ ...newDocument('Mine', '| C |'), ...tune }}
        onRoom={nothing}
      />,
      firstSteps,
    )
  test('are told by the rooms in which they are done, one for each that the player can be at in a tune', () => {
    const told = ROOMS.flatMap(({ firstStep }) => firstStep?.name ?? [])
    expect(FIRST_STEPS.filter((step) => step !== 'offered' && step !== 'away')).toEqual(told)
  })
  test.each(['offered', 'away'] as const)('say nothing in a tune while they are %s', (step) =>
    expect(strip(step, 'colour')).toBe(''),
  )
  test('say what to do in the room where it is done, and lead there from any other', () => {
    expect(wordsOf(strip('colour', 'colour'))).toMatch(/^3 of 4, Colour\. Move the control/)
    expect(buttonsOf(strip('colour', 'colour'))).toEqual(['Skip the first steps'])
    expect(wordsOf(strip('colour', 'chart'))).toContain('It is done on its own step.')
    expect(buttonsOf(strip('colour', 'chart'))).toEqual(['Go to Colour', 'Skip the first steps'])
  })
  test('lead on when it is seen that one is done; the last is done when the player says so', () => {
    const coloured = strip('colour', 'colour', { colour: 2 })
    expect(wordsOf(coloured)).toContain('That is a richer version.')
    expect(buttonsOf(coloured)).toEqual(['On to Lines', 'Skip the first steps'])
    const byHand = { '1:1': { chords: [{ symbol: 'C6', beats: 4 }], span: 1, rule: 'major-colour', at: 0 } }
    expect(buttonsOf(strip('colour', 'colour', { choices: byHand }))).toContain('On to Lines')
    expect(wordsOf(strip('lines', 'lines'))).toMatch(/^4 of 4, Lines\./)
    expect(buttonsOf(strip('lines', 'lines'))).toEqual(['Done'])
  })
})

describe('the header', () => {
  const header = (more: Partial<Parameters<typeof Header>[0]> = {}) =>
    drawn(
      <Header
        id="7"
        title="Ferry at Dusk"
        room={roomNamed('lines')!}
        rooms={ROOMS}
        undo={null}
        stepped={null}
        redo={null}
        status="saved"
        keptHere
        onTitle={nothing}
        onStep={nothing}
        onRoom={nothing}
        onKeys={nothing}
        {...more}
      />,
    )
  test('has the steps in working order, the present one marked', () => {
    const steps = [...header().matchAll(/<a [^>]*href="\/tunes\/7\/(\w+)"[^>]*>(\w+)<\/a>/g)]
    expect(steps.map(([, name]) => name)).toEqual(ROOMS.map(({ name }) => name))
    expect(steps.map(([, , label]) => label)).toEqual(ROOMS.map(({ label }) => label))
    expect(steps.filter(([tag]) => tag.includes('aria-current="step"')).map(([, name]) => name)).toEqual([
      'lines',
    ])
  })
  test('says what can be undone, and what cannot', () => {
    const buttonOf = (page: string, name: string) =>
      new RegExp(`<button[^>]*aria-label="${name}[^"]*"[^>]*>`).exec(page)![0]
    expect(buttonOf(header(), 'Undo')).toContain('disabled')
    expect(buttonOf(header({ undo: 'chart' }), 'Undo')).not.toContain('disabled')
    expect(header({ undo: 'tune brought in' })).toContain('Undo: tune brought in')
    expect(header()).toContain('Nothing to undo')
    expect(header({ redo: 'chart' })).toContain('Redo: chart')
  })
  test.each([
    ['saved', true, 'Saved'],
    ['saving', true, 'Saving…'],
    ['waiting', true, 'Kept in this browser'],
    ['waiting', false, 'leave this page open'],
    ['conflict', true, 'Changed in another tab'],
  ] as const)('while it is %s (kept here: %s) says "%s"', (status, keptHere, says) =>
    expect(wordsOf(header({ status, keptHere }))).toContain(says),
  )
})

describe('what is not simply saved', () => {
  const session = { asFile: () => '{}' } as unknown as TuneSession
  const notices = (
    status: SaveStatus,
    {
      keptHere = true,
      unread = [] as string[],
      aside = [] as { id: string; what: string; message: string }[],
    } = {},
  ) =>
    drawn(
      <KeepingNotices
        view={{ status, keptHere, aside: aside as never, title: 'Ferry at Dusk' }}
        unread={unread}
        session={session}
      />,
    )
  test('is silent while all is well, and while the browser keeps what waits', () => {
    expect(notices({ kind: 'saved' })).toBe('')
    expect(notices({ kind: 'waiting' })).toBe('')
  })
  test('a browser without room, and a server that says why, offer a file', () => {
    const full = notices({ kind: 'waiting' }, { keptHere: false })
    expect(wordsOf(full)).toContain('This browser has no room to keep what you made since')
    expect(buttonsOf(full)).toEqual(['Save it as a file'])
    expect(wordsOf(notices({ kind: 'waiting', message: 'The disk is full.' }))).toMatch(
      /^The disk is full\. What you made since is kept/,
    )
  })
  test('an edit that was not taken is named, with its reason', () => {
    const page = notices(
      { kind: 'saved' },
      { aside: [{ id: '1', what: 'tempo 900', message: 'A tempo is 20 to 400.' }] },
    )
    expect(wordsOf(page)).toContain(
      'Not taken: tempo 900. A tempo is 20 to 400. Everything else is as it was.',
    )
    expect(buttonsOf(page)).toEqual(['Save it as a file', 'Understood'])
  })
  test('of much that could not be read, the beginning is listed and the rest counted', () => {
    const page = notices(
      { kind: 'saved' },
      { unread: Array.from({ length: 9 }, (_, at) => `part ${at + 1}`) },
    )
    expect([...page.matchAll(/<li>(.*?)<\/li>/g)].map(([, one]) => one)).toEqual([
      ...Array.from({ length: 6 }, (_, at) => `part ${at + 1}`),
      'and 3 more',
    ])
  })
})

describe('a bar', () => {
  test('is told with the repeats that are drawn as lines only', () => {
    const { bars } = parseChart('pickup: 1\n| G7 |: C | F :| C |')
    expect(bars.map(barInWords)).toEqual(['pickup', 'bar 1, repeat begins', 'bar 2, repeat ends', 'bar 3'])
  })
  test('has its words under their beats, syllables joined', () => {
    const [bar] = parseChart('| C |').bars
    const lyrics = [
      { bar: 1, beat: 2, text: 'wa', joins: true },
      { bar: 1, beat: 3, text: 'ter', joins: false },
    ]
    const page = drawn(<SungWords bar={bar!} sung={{ lyrics: lyrics as never, onsets: [] }} />)
    expect(page).toContain('aria-label="Words of bar 1"')
    expect([...page.matchAll(/flex-grow:(\d+)/g)].map(([, beats]) => Number(beats))).toEqual([1, 1, 2])
    expect(wordsOf(page)).toBe('wa- ter')
  })
})
