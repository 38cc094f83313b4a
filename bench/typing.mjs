// Times typing in the browser (npm run bench:typing, after ./start --setup): from a key press to
// the reading on the page.
import { benchApplication, row } from './server.mjs'

const { base, browser, end } = await benchApplication()
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })

const BARS = [
  'Cmaj9 A7b9',
  'Dm11 G13',
  'Em9 Am11',
  'Fmaj9 Bb13',
  'Ebm7 Ab7',
  'Dm7 G7alt',
  'Cmaj7 C9',
  'Fm6 Bb13',
]
const chartOf = (bars) =>
  `key: C\n${Array.from({ length: bars / 4 }, (_, line) => `| ${Array.from({ length: 4 }, (__, at) => BARS[(line * 5 + at * 3) % 8]).join(' | ')} |`).join('\n')}`
/** Longer than the pause between keys, shorter than the one a search waits for. */
const BETWEEN_KEYS_MS = 250
const SEARCH_SETTLES_MS = 12_000
const TYPED = ' Ebm7 Ab7 | Dm7 G7 | Cmaj7 |'

/** Middle time of many keys, from the press to the changed systems, in ms. */
async function typing(bars) {
  await page.goto(base)
  await page.getByLabel('Title of a new tune').fill(`Typing ${bars}`)
  await page.getByRole('button', { name: 'New tune' }).click()
  await page.getByLabel('Chart text', { exact: true }).fill(chartOf(bars))
  await page.waitForTimeout(SEARCH_SETTLES_MS)
  await page.evaluate(() => {
    const area = document.getElementById('chart-text')
    area.focus()
    area.setSelectionRange(area.value.length, area.value.length)
    window.times = []
    let begun = 0
    area.addEventListener(
      'keydown',
      () => {
        begun = performance.now()
      },
      true,
    )
    new MutationObserver(() => {
      if (begun) window.times.push(performance.now() - begun)
      begun = 0
    }).observe(document.querySelector('.systems'), {
      subtree: true,
      childList: true,
      characterData: true,
      attributes: true,
    })
  })
  for (const key of TYPED) {
    await page.keyboard.press(key === ' ' ? 'Space' : key)
    await page.waitForTimeout(BETWEEN_KEYS_MS)
  }
  const times = (await page.evaluate(() => window.times)).sort((a, b) => a - b)
  return { middle: times[Math.floor(times.length / 2)], most: times.at(-1), keys: times.length }
}

const short = await typing(16)
const long = await typing(64)
row(
  'key press to updated reading, 64 bars : 16 bars',
  long.middle / short.middle,
  `64 bars: middle ${long.middle.toFixed(0)} ms, most ${long.most.toFixed(0)} ms of ${long.keys} keys`,
)
await end()
