// Times the pages in the browser (npm run bench:page, after ./start --setup), as ratios to an empty
// page of the same server in the same run.
import { randomUUID } from 'node:crypto'
import { gzipSync } from 'node:zlib'
import { benchApplication, middleOf, row } from './server.mjs'

/** Tunes put into the songbook beside the demo's, as copies of them. */
const MANY = 5_000
const ROUNDS = 5
const STEPS = ['Colour', 'Lines', 'Melody', 'Chart']
/** How long playing is watched for long tasks, in ms. */
const PLAYED_MS = 8_000
/**
 * Changes of a grip on Lines, each of which begins a search, and arrow keys pressed after each, at
 * such a pace.
 */
const CHANGES = 12
const KEYS = 6
const BETWEEN_KEYS_MS = 100

const copies = (db) => {
  const columns = (table) => db.pragma(`table_info(${table})`).map(({ name }) => name)
  const originals = db.prepare('select * from tunes').all()
  const names = columns('tunes')
  const put = db.prepare(
    `insert into tunes (${names.join(', ')}) values (${names.map((name) => `@${name}`).join(', ')})`,
  )
  db.transaction(() => {
    for (let at = 0; at < MANY; at += 1) {
      const original = originals[at % originals.length]
      put.run({ ...original, id: randomUUID(), title: `${original.title} ${at}` })
    }
  })()
}

/**
 * Until the page's scripts listen, in ms from the beginning of the navigation; with what the empty
 * page takes.
 */
async function opened(browser, base, path) {
  const times = { page: [], empty: [] }
  for (let round = 0; round < ROUNDS; round += 1) {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    const page = await context.newPage()
    await page.route('**/empty', (route) =>
      route.fulfill({ contentType: 'text/html', body: '<!doctype html><title>Empty</title>' }),
    )
    let begun = performance.now()
    await page.goto(`${base}/empty`)
    times.empty.push(performance.now() - begun)
    begun = performance.now()
    await page.goto(base + path, { waitUntil: 'commit' })
    await page.waitForFunction(() => document.documentElement.dataset.listening === 'yes')
    times.page.push(performance.now() - begun)
    await context.close()
  }
  return { page: middleOf(times.page), empty: middleOf(times.empty) }
}

/** The goal for the scripts of a tune's first load, compressed as they go over the network. */
const FIRST_LOAD_BYTES = 350_000
/** What a tune opened for the first time asks for until it listens, by kind, compressed. */
async function firstLoad(browser, base, path) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  const bodies = []
  page.on('response', (response) => bodies.push(response.body().then((body) => [response.url(), body])))
  await page.goto(base + path, { waitUntil: 'commit' })
  await page.waitForFunction(() => document.documentElement.dataset.listening === 'yes')
  const files = await Promise.all(bodies)
  await context.close()
  const sizeOf = (ending) =>
    files
      .filter(([url]) => url.endsWith(ending))
      .reduce((sum, [, body]) => sum + (ending === '.woff2' ? body : gzipSync(body)).length, 0)
  return { scripts: sizeOf('.js'), styles: sizeOf('.css'), fonts: sizeOf('.woff2') }
}

const say = (what, { page, empty }, more = '') =>
  row(what, page / empty, `${Math.round(page)} ms against ${Math.round(empty)} ms of an empty page${more}`)

const small = await benchApplication()
say('the songbook, until it listens', await opened(small.browser, small.base, '/'))
const page = await small.browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(small.base)
const address = await page.locator('tbody th a').first().getAttribute('href')
const empty = await opened(small.browser, small.base, address)
say('a tune of 32 bars, until it listens', empty)
const { scripts, styles, fonts } = await firstLoad(small.browser, small.base, address)
row(
  'scripts of a tune opened for the first time, compressed',
  scripts / FIRST_LOAD_BYTES,
  `${Math.round(scripts / 1000)} kB against the goal of ${FIRST_LOAD_BYTES / 1000}; styles ${Math.round(styles / 1000)}, fonts ${Math.round(fonts / 1000)}`,
)
await page.bringToFront()
await page.goto(small.base + address)
await page.waitForTimeout(4_000)

/** From the press to the first frame with the step's own bar, by the browser's own clock. */
const changes = Object.fromEntries(STEPS.map((step) => [step, []]))
for (let round = 0; round < ROUNDS; round += 1)
  for (const step of STEPS) {
    changes[step].push(
      await page.evaluate(
        (name) =>
          new Promise((resolve) => {
            const link = () =>
              [...document.querySelectorAll('nav[aria-label="Steps"] a')].find(
                ({ textContent }) => textContent === name,
              )
            const begun = performance.now()
            link().click()
            const look = () =>
              link()?.getAttribute('aria-current') === 'step'
                ? requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - begun)))
                : requestAnimationFrame(look)
            look()
          }),
        step,
      ),
    )
    await page.waitForTimeout(1_500)
  }
for (const step of STEPS)
  say(`to ${step}, until it is drawn`, { page: middleOf(changes[step]), empty: empty.empty })

// From an arrow key to the frame that shows it, while a search runs.
await page.getByRole('navigation', { name: 'Steps' }).getByRole('link', { name: 'Lines' }).click()
await page.waitForTimeout(4_000)
await page.evaluate(() => {
  window.answered = []
  addEventListener(
    'keydown',
    ({ key }) => {
      if (!key.startsWith('Arrow')) return
      const pressed = performance.now()
      requestAnimationFrame(() => setTimeout(() => window.answered.push(performance.now() - pressed)))
    },
    true,
  )
})
let searching = 0
for (let change = 0; change < CHANGES; change += 1) {
  await page.keyboard.press(`Shift+Digit${(change % 8) + 2}`)
  for (let at = 0; at < KEYS; at += 1) {
    await page.keyboard.press(at < KEYS / 2 ? 'ArrowRight' : 'ArrowLeft')
    await page.waitForTimeout(BETWEEN_KEYS_MS)
    if ((await page.getByText('Searching').count()) > 0) searching += 1
  }
  await page.waitForTimeout(1_500)
}
const keys = (await page.evaluate(() => window.answered)).sort((a, b) => a - b)
const share = `; ${searching} of ${keys.length} while a search ran`
say('an arrow key on Lines, the middle one of many', { page: middleOf(keys), empty: empty.empty }, share)
say('an arrow key on Lines, the slowest one', { page: keys.at(-1), empty: empty.empty }, share)

// With everything on: the Rhythm step, its threads and signs, guitar, bass and what marks the time.
await page.locator('nav[aria-label="Steps"] a', { hasText: 'Rhythm' }).click()
await page.waitForTimeout(1_500)
const { tasks, frames } = await page.evaluate(async (ms) => {
  const long = []
  new PerformanceObserver((list) => long.push(...list.getEntries().map(({ duration }) => duration))).observe({
    type: 'longtask',
  })
  const play = [...document.querySelectorAll('button')].find(
    ({ textContent }) => textContent.trim() === 'Play',
  )
  play.click()
  let count = 0
  let going = true
  const frame = () => {
    count += 1
    if (going) requestAnimationFrame(frame)
  }
  requestAnimationFrame(frame)
  const begun = performance.now()
  await new Promise((resolve) => setTimeout(resolve, ms))
  going = false
  return { tasks: long, frames: (count * 1000) / (performance.now() - begun) }
}, PLAYED_MS)
say('the longest task while playing', { page: Math.max(0, ...tasks), empty: empty.empty })
row('frames a second while playing', frames / 60, `${Math.round(frames)} of 60`)
await small.end()

const large = await benchApplication(copies)
say(`the songbook with ${MANY} more tunes, until it listens`, await opened(large.browser, large.base, '/'))
await large.end()
