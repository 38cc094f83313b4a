import { readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { unzipSync } from 'fflate'
import { act, expect, test, haveTune } from './fixtures'

test('all of the book goes out in one file and comes in again: nothing twice, what has changed beside, and a broken file changes nothing', async ({
  page,
}) => {
  await haveTune(page, 'Backed Up', 'key: C\n| C | F | G7 | C |')
  await page.goto('/files')
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save a backup' }).click(),
  ])
  expect(download.suggestedFilename()).toMatch(/^heron-\d{4}-\d\d-\d\d\.heron\.zip$/)
  const file = (await download.path())!
  const restore = async (path: string) => {
    await page.goto('/files')
    await page.getByLabel('Backup file').setInputFiles({
      name: 'backup.zip',
      mimeType: 'application/zip',
      buffer: readFileSync(path),
    })
    await page.getByRole('button', { name: 'Restore' }).click()
  }
  await restore(file)
  await expect(page.getByRole('status')).toContainText(/ 0 tunes brought in, \d+ were here and the same/)
  await expect(page.getByRole('status')).toContainText('0 passes of the log')

  await page.goto('/?q=Backed')
  await act(page.getByRole('row', { name: /Backed Up/ }), 'Rename')
  await page.getByRole('textbox', { name: 'New title' }).fill('Backed Down')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('link', { name: 'Backed Down' })).toBeVisible()
  await restore(file)
  await expect(page.getByRole('status')).toContainText(
    /Beside tunes that are others now: Backed Up \(backup of/,
  )
  await page.goto('/?q=Backed')
  await expect(page.getByRole('link', { name: /^Backed Up \(backup of/ })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Backed Down' })).toBeVisible()

  const broken = join(tmpdir(), `broken-${process.pid}.zip`)
  writeFileSync(broken, readFileSync(file).subarray(0, 2_000))
  await restore(broken)
  await expect(page.getByRole('alert')).toContainText('cut short')
})

test('tunes from elsewhere: several files at once, those that cannot be read named; and the songbook as ChordPro', async ({
  page,
}) => {
  await page.goto('/files')
  await page.getByLabel('Files', { exact: true }).setInputFiles([
    {
      name: 'two.cho',
      mimeType: 'text/plain',
      buffer: Buffer.from('{title: Brought One}\n[C]la [F]la\n{new_song}\n{title: Brought Two}\n[G7]la\n'),
    },
    { name: 'picture.png', mimeType: 'image/png', buffer: Buffer.from('x') },
  ])
  await page.getByRole('button', { name: 'Bring in', exact: true }).click()
  await expect(page.getByRole('list', { name: 'Brought in' }).getByRole('listitem')).toHaveCount(2)
  await expect(page.getByRole('alert')).toContainText('picture.png is of no kind that is read here')
  await page.getByRole('link', { name: 'Brought Two' }).click()
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('Brought Two')
  await page.goto('/files')
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'All tunes as ChordPro' }).click(),
  ])
  const inside = unzipSync(new Uint8Array(readFileSync((await download.path())!)))
  expect(new TextDecoder().decode(inside['Brought Two.cho'])).toContain('{title: Brought Two}')
})
