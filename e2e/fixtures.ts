import {
  expect,
  test as base,
  type Browser,
  type BrowserContext,
  type BrowserContextOptions,
  type ConsoleMessage,
  type Locator,
  type Page,
  type ViewportSize,
  type WebError,
} from '@playwright/test'
import { Server } from './server'

/**
 * A page that test after test of a worker goes on in: one that has read the application's scripts
 * before opens it at two thirds of what a new one takes.
 */
class KeptPage {
  private constructor(
    readonly context: BrowserContext,
    readonly page: Page,
    private readonly url: string,
  ) {}

  static async open(browser: Browser, given: BrowserContextOptions & { baseURL: string }): Promise<KeptPage> {
    const context = listening(await browser.newContext(given))
    return new KeptPage(context, await context.newPage(), given.baseURL)
  }

  /**
   * Gives it back as it was new: nothing that a test opened, set, listened to or stored is left for
   * the next one.
   */
  async empty(viewport: ViewportSize): Promise<void> {
    const { context, page, url } = this
    for (const other of context.pages()) if (other !== page) await other.close()
    page.removeAllListeners()
    await page.unrouteAll()
    await context.unrouteAll()
    await context.setOffline(false)
    await context.clearPermissions()
    // A picture: it has the address that things are stored under, and no script that could write
    // more.
    await page.goto(new URL('/heron.svg', url).href, { waitUntil: 'commit' })
    await page.evaluate(() => sessionStorage.clear())
    const browser = await context.newCDPSession(page)
    await browser.send('Storage.clearDataForOrigin', { origin: new URL(url).origin, storageTypes: 'all' })
    await browser.detach()
    await context.clearCookies()
    await page.setViewportSize(viewport)
    await page.emulateMedia({ media: null, colorScheme: null, reducedMotion: null })
    await page.mouse.move(0, 0)
  }
}

interface OfTest {
  /** The test has a page of its own, for what cannot be given back, such as a clock that is set. */
  readonly apart: boolean
  /** A fault that the test makes on purpose, which the page may report. */
  readonly forgives: RegExp | null
  readonly checked: void
}
interface OfWorker {
  readonly server: Server
  readonly kept: KeptPage
}

/**
 * A worker's tests have one server and one page; every page error and policy violation fails the
 * test that saw it.
 */
export const test = base.extend<OfTest, OfWorker>({
  apart: [false, { option: true }],
  forgives: [null, { option: true }],
  server: [
    async ({}, give) => {
      const server = new Server()
      await server.start()
      await give(server)
      await server.end()
    },
    { scope: 'worker' },
  ],
  kept: [
    async ({ browser, server }, give, { project }) => {
      const { viewport, serviceWorkers } = project.use
      const kept = await KeptPage.open(browser, {
        baseURL: server.url,
        ...(viewport !== undefined && { viewport }),
        ...(serviceWorkers && { serviceWorkers }),
      })
      await give(kept)
      await kept.context.close()
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ server }, give) => give(server.url),
  context: async ({ apart, kept, browser, server, viewport, serviceWorkers, bypassCSP }, give) => {
    if (apart) {
      const context = await browser.newContext({ baseURL: server.url, viewport, serviceWorkers, bypassCSP })
      await give(listening(context))
      await context.close()
    } else {
      await give(kept.context)
      await kept.empty(viewport!)
    }
  },
  page: async ({ apart, kept, context }, give) => give(apart ? await context.newPage() : kept.page),
  checked: [
    async ({ context, forgives }, give) => {
      const troubles: string[] = []
      const failed = (error: WebError) => {
        const { message } = error.error()
        if (!forgives?.test(message)) troubles.push(message)
      }
      const told = (message: ConsoleMessage) => {
        if (/Content Security Policy|hydrat/i.test(message.text())) troubles.push(message.text())
      }
      context.on('weberror', failed)
      context.on('console', told)
      await give()
      context.off('weberror', failed)
      context.off('console', told)
      expect(troubles).toEqual([])
    },
    { auto: true },
  ],
})
export { expect }

/**
 * Pages that are gone to or loaded anew are ready when their scripts listen: until then a click
 * says nothing.
 */
function listening(context: BrowserContext): BrowserContext {
  const newPage = context.newPage.bind(context)
  context.newPage = async () => {
    const page = await newPage()
    const heard = async <Answer>(answer: Promise<Answer>): Promise<Answer> => {
      const response = await answer
      if (page.url() !== 'about:blank')
        await page.waitForFunction(
          () => document.contentType !== 'text/html' || document.documentElement.dataset.listening === 'yes',
        )
      return response
    }
    const goto = page.goto.bind(page)
    const reload = page.reload.bind(page)
    page.goto = (...given) => heard(goto(...given))
    page.reload = (...given) => heard(reload(...given))
    return page
  }
  return context
}

/** Makes a tune by hand: title, button, text. */
export async function typeTune(page: Page, title: string, text: string): Promise<void> {
  await page.goto('/')
  await page.getByLabel('Title of a new tune').fill(title)
  await page.getByRole('button', { name: 'New tune' }).click()
  await saved(page)
  await page.getByLabel('Chart text', { exact: true }).fill(text)
  await saved(page)
}

type Step = 'Chart' | 'Colour' | 'Lines' | 'Melody' | 'Rhythm' | 'Practice'

/** Connections are kept from test to test: the server may close one just when it is used. */
const AGAIN = { maxRetries: 2 }

/**
 * A tune that is there, opened at a step: that it can be made by hand is tried by the tests that
 * type one.
 */
export async function haveTune(page: Page, title: string, text: string, step: Step = 'Chart'): Promise<void> {
  const made = await page.request.post('/?index', {
    form: { intent: 'new', title },
    maxRedirects: 0,
    ...AGAIN,
  })
  const tune = /^\/tunes\/[^/]+/.exec(made.headers()['location'] ?? '')?.[0] ?? ''
  const { revision } = (await (await page.request.get(`${tune}/edits`, AGAIN)).json()) as { revision: string }
  const written = await page.request.post(`${tune}/edits`, {
    data: { base: revision, edit: { kind: 'text', text } },
    ...AGAIN,
  })
  expect(written.ok()).toBe(true)
  await page.goto(`${tune}/${step.toLowerCase()}`)
}

/**
 * A tune of the songbook, opened at a step; that it can be opened from there by hand is tried
 * elsewhere.
 */
export async function fromBook(page: Page, title: string, step: Step = 'Chart'): Promise<void> {
  const book = await (await page.request.get('/', AGAIN)).text()
  const tune = book.split('href="').find((link) => link.includes(`>${title}</a>`))
  await page.goto(`${/^\/tunes\/[^/"]+/.exec(tune ?? '')![0]}/${step.toLowerCase()}`)
}

/** What was made is on disk; before the page's scripts run nothing says so. */
export const saved = (page: Page) =>
  expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible()
/**
 * Does something that sets the player, and waits until the server has it. @param word in what is
 * sent of it
 */
export async function playerKept(page: Page, word: string, act: () => Promise<void>): Promise<void> {
  await Promise.all([
    page.waitForResponse(
      (answer) =>
        answer.url().endsWith('/player/edits') && (answer.request().postData() ?? '').includes(word),
    ),
    act(),
  ])
}
/** Goes to a step, and waits until it is the one that is shown. */
export async function goTo(page: Page, step: Step | 'Sheet'): Promise<void> {
  const link = page.getByRole('navigation', { name: 'Steps' }).getByRole('link', { name: step })
  await link.click()
  if (step === 'Sheet') await expect(page.getByRole('button', { name: 'Print' })).toBeVisible()
  else await expect(link).toHaveAttribute('aria-current', 'step')
}

export const newLine = (page: Page) => page.getByRole('group', { name: 'New line' })
export const homeLine = (page: Page) => page.getByRole('group', { name: 'Home line' })

/** Does something with a tune of the songbook, from its menu. */
export async function act(row: Locator, what: 'Rename' | 'Duplicate' | 'Delete'): Promise<void> {
  await row.getByText('More', { exact: true }).click()
  await row.getByRole('button', { name: what }).click()
}

/** Opens a word of the room's bar, if it is not open. */
export async function open(page: Page, word: string): Promise<void> {
  const control = page
    .getByRole('region', { name: 'Controls' })
    .getByRole('button', { name: new RegExp(`^${word} `) })
  if ((await control.getAttribute('aria-expanded')) !== 'true') await control.click()
}

/** Selects a chord of a bank, waiting until the page's scripts listen. */
export const pick = (bank: ReturnType<typeof newLine>, at: number) =>
  expect(async () => {
    const chord = bank.getByRole('button').nth(at)
    await chord.click()
    await expect(chord).toHaveAttribute('aria-pressed', 'true', { timeout: 1_000 })
  }).toPass()

/** Chord symbols of a bank, in order. */
export const symbolsIn = (bank: ReturnType<typeof newLine>) =>
  chordNames(bank).evaluateAll((names) => names.map((name) => name.getAttribute('aria-label')))

/** Grips of the new line, in order, as words. */
export const gripsIn = (page: Page) =>
  grips(newLine(page)).evaluateAll((gripsIn) => gripsIn.map((grip) => grip.getAttribute('aria-label')))

export async function linesFound(page: Page): Promise<void> {
  await expect(page.getByRole('radio', { name: /^(Line 1|Your line)/ })).toBeVisible({ timeout: 90_000 })
  await expect(searchState(page).filter({ hasText: 'Searching' })).toHaveCount(0)
  await saved(page)
  await drawn(page)
}

/** What was found is on the page: systems and drawer come a frame after what is said of them. */
export const drawn = (page: Page): Promise<void> => expect(page.locator('[aria-busy="true"]')).toHaveCount(0)

/** The chords under a melody are found and kept. */
export async function melodyFound(page: Page): Promise<void> {
  await expect(tablature(page).first()).toBeVisible({ timeout: 90_000 })
  await expect(searchState(page).filter({ hasText: 'Searching' })).toHaveCount(0)
  await saved(page)
  await drawn(page)
}

/** The notes on the staff, in order, as words. */
export const melodyIn = async (page: Page) =>
  (await staves(page).evaluateAll((staves) => staves.map((staff) => staff.getAttribute('aria-label')!)))
    .filter((words) => words !== 'Melody: rests')
    .flatMap((words) => words.replace('Melody: ', '').split('; '))

/** What is played begins at once: nothing is counted in. */
export async function withoutCountIn(page: Page): Promise<void> {
  await page.getByRole('combobox', { name: 'Count-in' }).click()
  await page.getByRole('option', { name: 'none' }).click()
}

/** What stands in a page, by its role and name, as a screen reader finds it. */
export const whatIsPlayed = (page: Page) => page.getByRole('status', { name: 'What is played' })
export const searchState = (page: Page) => page.getByRole('status', { name: 'Search', exact: true })
export const problems = (page: Page) => page.getByRole('list', { name: 'Problems' })
export const formLine = (page: Page) => page.getByRole('group', { name: 'Form', exact: true })
export const staves = (page: Page) => page.getByRole('group', { name: /^Melody: / })
export const tablature = (page: Page) => page.getByRole('group', { name: 'Tablature of the chord melody' })
export const threads = (page: Page) => page.getByRole('img', { name: /^Threads: / })
export const inSet = (page: Page) =>
  page.getByRole('list', { name: 'Order of the set' }).getByRole('listitem')
export const gripsListed = (page: Page) =>
  page.getByRole('list', { name: /^Grips (of the book|on the neck)$/ }).getByRole('listitem')
export const newestDay = (page: Page) => page.getByRole('group', { name: / \d{4}$/ }).first()
/** The pages of a sheet, as they are printed. */
export const printed = (page: Page) => page.getByRole('group', { name: /^Page \d+ of \d+$/ })
/** What was changed, row by row, on the page of all reasons. */
export const reasons = (page: Page) =>
  page
    .getByRole('table', { name: 'Reasons' })
    .getByRole('row')
    .filter({ has: page.getByRole('rowheader') })
const GRIP = { name: /^Grip, lowest string first/ }
export const grips = (within: Page | Locator) => within.getByRole('img', GRIP)
/** Grips the drawer offers; with `pressed` only those that are taken, or only the others. */
export const gripChoices = (page: Page, pressed?: boolean) =>
  page
    .getByRole('complementary')
    .getByRole('button', pressed === undefined ? {} : { pressed })
    .filter({ has: page.getByRole('img', GRIP) })
export const chordNames = (within: Page | Locator) => within.getByRole('img', { name: /^[A-G][^ ]*$/ })
/** The chord of a bank that sounds now. */
export const sounding = (within: Locator) => within.locator('[aria-current="true"]')
/** Texts of a bank that no chord could be read from. */
export const unread = (bank: Locator) =>
  bank.getByRole('button').filter({ hasNot: chordNames(bank.page()), hasNotText: 'N.C.' })
/**
 * The numerals under the chords of a bank. They are parts of its buttons, which have no roles of
 * their own.
 */
export const numerals = (bank: Locator) => bank.getByText(/^[♯♭]?(VII?|I?V|I{1,3}|vii?|i?v|i{1,3})(?![no])/)
/** The points of a chart, drawn by the chart library. */
export const pointsOf = (page: Page) =>
  page.getByRole('img', { name: /^(Chart of the lines|Tempo of|Minutes a day)/ }).locator('.point')
