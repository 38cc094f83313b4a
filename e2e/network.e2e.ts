import { expect, test, type Page } from '@playwright/test'
import { AccessStore } from '../server/access/accessStore'
import { Server } from './server'

/** What share of the scripts of a page had to come over the wire. */
const shareSent = (page: Page) =>
  page.evaluate(() => {
    const scripts = performance
      .getEntriesByType('resource')
      .filter((one): one is PerformanceResourceTiming => /\/assets\/.*\.js$/.test(one.name))
    const sum = (of: 'encodedBodySize' | 'decodedBodySize') => scripts.reduce((all, one) => all + one[of], 0)
    return sum('encodedBodySize') / sum('decodedBodySize')
  })

test('a tablet of the home network: signs in, works as in a secure page, and is signed out from everywhere', async ({
  browser,
}) => {
  const server = new Server({ HOST: '0.0.0.0' })
  await AccessStore.beside(server.book).setPassphrase('quiet water by the lock')
  await server.start()
  await expect.poll(() => server.secure).not.toBe('')
  const tablet = await browser.newContext({ ignoreHTTPSErrors: true, viewport: { width: 820, height: 1180 } })
  try {
    const page = await tablet.newPage()
    await page.goto(server.secure)
    await page.getByLabel('Passphrase').fill('not this one')
    await page.getByRole('button', { name: 'Sign in' }).click()
    await expect(page.getByRole('alert')).toHaveText('That is not the passphrase.')
    await page.getByLabel('Passphrase').fill('quiet water by the lock')
    await page.getByRole('button', { name: 'Sign in' }).click()
    await page.getByRole('link', { name: 'Halyard Waltz', exact: true }).click()
    await page.getByLabel('Tempo in beats').fill('133')
    await page.getByLabel('Tempo in beats').press('Enter')
    await expect(page.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible()
    expect(
      await page.evaluate(() => [isSecureContext, typeof navigator.locks, typeof crypto.randomUUID]),
    ).toEqual([true, 'object', 'function'])
    expect(await shareSent(page)).toBeLessThan(0.5)
    // This machine itself needs no passphrase, and sees the address; nothing is compressed for it.
    const here = await (await browser.newContext()).newPage()
    await here.goto(`${server.url}/player`)
    expect(await shareSent(here)).toBe(1)
    await expect(here.getByRole('img', { name: /to point a camera at/ })).toBeVisible()
    await here.getByRole('button', { name: 'Sign out everywhere' }).click()
    await expect(here.getByRole('heading', { level: 1, name: 'Player' })).toBeVisible()
    await page.goto(`${server.secure}/player`)
    await expect(page.getByLabel('Passphrase')).toBeVisible()
  } finally {
    await tablet.close()
    await server.end()
  }
})

test('without a passphrase the network is not served, and it is said how', async () => {
  const server = new Server({ HOST: '0.0.0.0' })
  await expect(server.start()).rejects.toThrow('the server ended with 1')
  await server.end()
})
