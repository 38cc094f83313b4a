import AxeBuilder from '@axe-core/playwright'
import { expect, goTo, linesFound, saved, test } from './fixtures'

/** Every view in both themes by the automatic part of WCAG 2.2 AA (axe-core). */
for (const theme of ['morning', 'dusk'] as const)
  test(`every view is accessible in ${theme}`, async ({ page, context, baseURL }) => {
    test.setTimeout(300_000)
    await context.addCookies([{ name: 'heron-theme', value: theme, url: baseURL! }])
    const check = async (view: string) => {
      const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']).analyze()
      expect(violations.map((violation) => `${view}: ${violation.id} ${violation.nodes.slice(0, 3).map((node) => node.html).join(' ')}`)).toEqual([])
    }
    await page.goto('/')
    expect(await page.locator('html').getAttribute('data-theme')).toBe(theme)
    await check('songbook')
    await page.getByRole('link', { name: 'Low Water Blues' }).click()
    await saved(page)
    await check('chart')
    await page.getByRole('button', { name: 'Bring in chords' }).click()
    await check('bring in')
    await page.keyboard.press('Escape')
    await goTo(page, 'Colour')
    await check('colour')
    await page.getByRole('button', { name: 'All reasons on a page' }).click()
    await expect(page.locator('.reasons')).toBeVisible()
    await check('reasons')
    await page.getByRole('link', { name: 'Back to the tune' }).click()
    await goTo(page, 'Lines')
    await linesFound(page)
    await check('lines')
    await page.locator('body').press('?')
    await expect(page.getByRole('dialog')).toBeVisible()
    await check('keys')
    await page.keyboard.press('Escape')
    await goTo(page, 'Sheet')
    await expect(page.getByRole('button', { name: 'Print' })).toBeVisible()
    await check('sheet')
  })
