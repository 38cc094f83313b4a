import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { execFileSync } from 'node:child_process'
import { fromBook, expect, goTo, linesFound, printed, test, haveTune } from './fixtures'

const RENDERER = createRequire(import.meta.url).resolve(
  'opensheetmusicdisplay/build/opensheetmusicdisplay.min.js',
)

test('the MusicXML file opens in a general renderer (opensheetmusicdisplay) with all bars, chords and notes, of melody, grips and chord melody', async ({
  page,
  context,
}) => {
  await fromBook(page, 'Halyard Waltz', 'Lines')
  await linesFound(page)
  await goTo(page, 'Sheet')
  await page
    .locator('summary')
    .filter({ hasText: /^Files$/ })
    .click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'MusicXML', exact: true }).click(),
  ])
  const xml = readFileSync((await download.path())!, 'utf8')

  const reader = await context.newPage()
  await reader.setContent('<div id="score" style="width:1200px"></div>')
  await reader.addScriptTag({ path: RENDERER })
  const read = await reader.evaluate(async (text) => {
    const { OpenSheetMusicDisplay } = (
      window as never as {
        opensheetmusicdisplay: { OpenSheetMusicDisplay: new (place: string, options: object) => never }
      }
    ).opensheetmusicdisplay
    const display = new OpenSheetMusicDisplay('score', { autoResize: false }) as unknown as {
      load: (xml: string) => Promise<unknown>
      render: () => void
      Sheet: {
        TitleString: string
        SourceMeasures: {
          VerticalSourceStaffEntryContainers: {
            StaffEntries: { ChordContainers: unknown[]; VoiceEntries: { Notes: unknown[] }[] }[]
          }[]
        }[]
      }
    }
    await display.load(text)
    display.render()
    const entries = display.Sheet.SourceMeasures.flatMap((measure) =>
      measure.VerticalSourceStaffEntryContainers.flatMap((container) => container.StaffEntries),
    )
    return {
      title: display.Sheet.TitleString,
      bars: display.Sheet.SourceMeasures.length,
      chords: entries.reduce((sum, entry) => sum + entry.ChordContainers.length, 0),
      notes: entries.reduce(
        (sum, entry) => sum + entry.VoiceEntries.reduce((count, voice) => count + voice.Notes.length, 0),
        0,
      ),
      drawn: document.querySelectorAll('#score svg path').length,
    }
  }, xml)
  // The symbols stand over the melody and over the guitar, and over the chord melody where its
  // chord is another.
  expect(read).toMatchObject({
    title: 'Halyard Waltz',
    bars: 32,
    chords: (xml.match(/<harmony>/g) ?? []).length,
  })
  expect(read.notes).toBe((xml.match(/<pitch>|<rest\/>/g) ?? []).length)
  expect(read.drawn).toBeGreaterThan(100)
})

test('a sheet is composed: what it carries shows at once, is in the address and in the PDF, and is kept under a name', async ({
  page,
  request,
}) => {
  await haveTune(page, 'Composed', 'key: F\n[A] | Fmaj7 | D7 | Gm7 | C7 |\n[B] | Fmaj7 | C7 |')
  await goTo(page, 'Sheet')
  const grips = printed(page).getByRole('img', { name: /^Grip/ })
  await expect(grips.first()).toBeVisible()
  await page.getByRole('combobox', { name: 'Grips' }).selectOption({ label: 'None' })
  await expect(grips).toHaveCount(0)
  await page.getByRole('checkbox', { name: 'Numerals' }).uncheck()
  await expect(printed(page)).not.toContainText('V7/ii')
  await page.getByRole('combobox', { name: 'Bars a line' }).selectOption('2')
  await expect(printed(page).getByRole('group', { name: /^Bars/ })).toHaveCount(3)
  await page.getByRole('combobox', { name: 'Part for' }).selectOption({ label: 'B♭ instruments' })
  await expect(printed(page).getByRole('img', { name: 'Gmaj7', exact: true }).first()).toBeVisible()
  await page.reload()
  await expect(printed(page).getByRole('group', { name: /^Bars/ })).toHaveCount(3)
  const address = await page.getByRole('link', { name: 'PDF' }).getAttribute('href')
  const pdf = await request.get(address!)
  expect(pdf.headers()['content-type']).toBe('application/pdf')
  expect((await pdf.body()).toString('latin1', 0, 5)).toBe('%PDF-')

  await page.getByRole('textbox', { name: 'Keep this layout as' }).fill('For the horn')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  const layout = page.getByRole('combobox', { name: 'Layout' })
  await expect(layout.locator('option:checked')).toHaveText('For the horn')
  await layout.selectOption({ label: 'Lead sheet' })
  await expect(printed(page).getByRole('img', { name: 'Fmaj7', exact: true }).first()).toBeVisible()
  await layout.selectOption({ label: 'For the horn' })
  await expect(printed(page).getByRole('group', { name: /^Bars/ })).toHaveCount(3)
  await page.getByRole('button', { name: 'Take “For the horn” out' }).click()
  await expect(layout.locator('option')).not.toContainText(['For the horn'])
  await page.getByRole('button', { name: 'Put it back' }).click()
  await expect(layout.locator('option:checked')).toHaveText('For the horn')
})

test('the browser prints the pages of the PDF: as many, of the same paper', async ({ page, request }) => {
  await fromBook(page, 'Lantern on the Rail')
  await goTo(page, 'Sheet')
  await expect(printed(page).getByRole('img', { name: /^Grip/ }).first()).toBeVisible()
  const pages = await printed(page).count()
  expect(pages).toBeGreaterThan(1)
  const pdf = await page.pdf({ preferCSSPageSize: true })
  const made = await (
    await request.get((await page.getByRole('link', { name: 'PDF' }).getAttribute('href'))!)
  ).body()
  for (const one of [pdf, made]) expect(sizesIn(one)).toEqual(Array(pages).fill('595x842'))
})

/** Width and height of each page, by a general reader of PDF. */
function sizesIn(pdf: Buffer): string[] {
  const script = `
    import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
    import { readFileSync } from 'node:fs'
    const pdf = await getDocument({ data: new Uint8Array(readFileSync(0)), verbosity: 0 }).promise
    for (let at = 1; at <= pdf.numPages; at += 1) {
      const { width, height } = (await pdf.getPage(at)).getViewport({ scale: 1 })
      console.log(Math.round(width) + 'x' + Math.round(height))
    }`
  return execFileSync(process.execPath, ['--input-type=module', '-e', script], {
    input: pdf,
    encoding: 'utf8',
  })
    .trim()
    .split('\n')
}
