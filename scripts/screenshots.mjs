// Takes the pictures of docs/screenshots from the demo data: npm run screenshots, after ./start
// --setup.
import { CHROMIUM } from './chromium.mjs'
import { spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from 'playwright-core'

const folder = mkdtempSync(join(tmpdir(), 'heron-shots-'))
const server = spawn('node', ['build/serve.mjs'], {
  env: { ...process.env, NODE_ENV: 'production', PORT: '0', HERON_DB: join(folder, 'demo.sqlite') },
})
const base = await new Promise((resolve) =>
  server.stdout.on('data', (text) => resolve(/http:\S+/.exec(text)[0])),
)
const browser = await chromium.launch({
  executablePath: CHROMIUM,
  args: ['--no-sandbox', '--disable-gpu', '--no-first-run'],
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
mkdirSync('docs/screenshots', { recursive: true })
const shoot = (name) => page.screenshot({ path: `docs/screenshots/${name}.png` })

/** Opens a word of the bar. */
const word = (name) =>
  page
    .getByRole('region', { name: 'Controls' })
    .getByRole('button', { name: new RegExp(`^${name} `) })
    .click()

/** Opens a tune at a step and waits until its lines are found. */
async function open(tune, step) {
  await page.goto(base)
  await page.getByRole('link', { name: tune, exact: true }).click()
  await page.getByRole('navigation', { name: 'Steps' }).getByRole('link', { name: step }).click()
  await page.waitForTimeout(600)
  await page.waitForFunction(
    () =>
      !document.querySelector('.lines-state')?.textContent.includes('Searching') &&
      !document.querySelector('.transport-says')?.textContent.includes('Finding grips'),
    null,
    { timeout: 90_000 },
  )
  await page.waitForTimeout(600)
}

await page.goto(base)
await shoot('songbook')
await page.goto(`${base}/files`)
await shoot('files')
await page.goto(`${base}/sets`)
await page.getByRole('link', { name: 'Evening crossing' }).click()
await page.getByRole('button', { name: 'PDF of the set' }).waitFor()
await shoot('set')
await page.setViewportSize({ width: 1024, height: 768 })
await page.getByRole('link', { name: 'On the stand' }).click()
await page.locator('.stand .paper-page').waitFor()
await page.waitForTimeout(1500)
await shoot('stand')
await page.setViewportSize({ width: 1280, height: 800 })
await open('Lantern on the Rail', 'Chart')
await page.locator('.bank-home .slot').nth(5).click()
await shoot('chart')
const chartDusk = async () => {
  await open('Lantern on the Rail', 'Chart')
  await word('Chart')
  await page.getByRole('button', { name: 'With an ending' }).click()
  await page.keyboard.press('Escape')
  await page.locator('.bank-home .slot').nth(13).click()
  await page.locator('body').press('w')
  await page.waitForTimeout(500)
  await shoot('chart-dusk')
}
await open('Lantern on the Rail', 'Melody')
await page.locator('.tab-strip').first().waitFor()
await page.waitForTimeout(1500)
await page.locator('.staff-note rect').nth(4).click()
await page.waitForTimeout(1500)
await shoot('melody')
await open('Lantern on the Rail', 'Rhythm')
await page.waitForTimeout(1500)
await page.locator('.rhythm-hit').nth(3).click()
await page.waitForTimeout(400)
await shoot('rhythm')
await open('Lantern on the Rail', 'Colour')
await page.locator('.bank-new .slot').nth(5).click()
await page.getByRole('region', { name: 'swap' }).getByRole('button').nth(1).click()
await word('Take me further')
await page.getByRole('slider', { name: /take me this far/ }).focus()
for (let press = 0; press < 6; press += 1) await page.keyboard.press('ArrowRight')
await page.getByRole('radio', { name: /Way 2/ }).click()
await page.keyboard.press('Escape')
await page.waitForTimeout(600)
await page.evaluate(() => document.querySelector('.music').scrollTo(0, 0))
await shoot('colour')
await page.getByRole('button', { name: 'All reasons' }).click()
await page.locator('.reasons').waitFor()
await page.waitForTimeout(300)
await shoot('reasons')
await page.goto(`${base}/grips`)
await page.getByLabel(/^Frets, lowest/).fill('x 3 5 4 5 x')
await page.keyboard.press('Enter')
await page.getByRole('region', { name: 'Inversions' }).waitFor()
await page.waitForTimeout(300)
await shoot('grip-book')
await page.goto(`${base}/player`)
await page.waitForTimeout(400)
await shoot('player')
await open('Four Planks', 'Lines')
await page.locator('.bank-new .slot').nth(2).click()
await page.waitForTimeout(800)
await shoot('lines')
await page.getByRole('navigation', { name: 'Steps' }).getByRole('link', { name: 'Sheet' }).click()
await page.getByRole('button', { name: 'Print' }).waitFor()
await page.waitForTimeout(300)
await shoot('sheet')
await open('Lantern on the Rail', 'Practice')
await page.getByRole('region', { name: 'What is practised' }).waitFor()
await page.waitForFunction(() => !document.body.innerText.includes('no grip'))
await page.waitForTimeout(600)
await shoot('practice')
await page.goto(`${base}/log`)
await page.locator('.lines-chart .point').first().waitFor()
await page.waitForTimeout(600)
await shoot('log')
await page.goto(`${base}/trainer`)
await page.getByRole('button', { name: /^Begin three minutes/ }).click()
await page.locator('body').press('1')
await page.waitForTimeout(600)
await shoot('trainer')
await page.context().addCookies([{ name: 'heron-theme', value: 'dusk', url: base }])
await open('Low Water Blues', 'Lines')
await shoot('lines-dusk')
await open('Halyard Waltz', 'Melody')
await word('Under it')
await page.getByRole('button', { name: 'Two lines', exact: true }).click()
await page.waitForTimeout(3000)
await shoot('melody-dusk')
await chartDusk()
await browser.close()
server.kill()
rmSync(folder, { recursive: true })
