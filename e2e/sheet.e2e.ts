import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { expect, goTo, linesFound, test } from './fixtures'

const RENDERER = createRequire(import.meta.url).resolve(
  'opensheetmusicdisplay/build/opensheetmusicdisplay.min.js',
)

test('the MusicXML file opens in a general renderer (opensheetmusicdisplay) with all bars, chords and notes, of melody, grips and chord melody', async ({
  page,
  context,
}) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'Halyard Waltz' }).click()
  await goTo(page, 'Lines')
  await linesFound(page)
  await goTo(page, 'Sheet')
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
  // The symbols stand over the melody and over the guitar, and over the chord melody where its chord is another.
  expect(read).toMatchObject({
    title: 'Halyard Waltz',
    bars: 32,
    chords: (xml.match(/<harmony>/g) ?? []).length,
  })
  expect(read.notes).toBe((xml.match(/<pitch>|<rest\/>/g) ?? []).length)
  expect(read.drawn).toBeGreaterThan(100)
})
