import type { Theme } from '@mui/material/styles'
import { PALETTES, SCHEMES, themeFromCookies, THEME, type ThemeName } from './theme'

/** Relative luminance of a colour (WCAG 2.2, "relative luminance", from memory). */
function luminance(hex: string): number {
  const [red, green, blue] = [1, 3, 5].map((at) => {
    const share = parseInt(hex.slice(at, at + 2), 16) / 255
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
  }) as [number, number, number]
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue
}

/** From 1 to 21 (WCAG 2.2, "contrast ratio", from memory). */
function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number]
  return (light + 0.05) / (dark + 0.05)
}

test('contrast as WCAG counts it: black on white is 21, a colour on itself 1', () => {
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21)
  expect(contrast('#2F5D62', '#2F5D62')).toBe(1)
  expect(contrast('#777777', '#FFFFFF')).toBeCloseTo(4.48, 2)
})

describe.each(Object.keys(PALETTES) as ThemeName[])('the colours of %s (WCAG 2.2 AA)', (name) => {
  const palette = PALETTES[name]
  const papers = ['paper', 'raised'] as const
  test.each(['ink', 'soft', 'pond', 'clay'] as const)('%s is read on both papers: 4.5 to 1', (colour) => {
    for (const paper of papers) expect(contrast(palette[colour], palette[paper])).toBeGreaterThanOrEqual(4.5)
  })
  test('words on a coloured ground are read: 4.5 to 1', () => {
    expect(contrast(palette.onPond, palette.pond)).toBeGreaterThanOrEqual(4.5)
    expect(contrast(palette.onReed, palette.reed)).toBeGreaterThanOrEqual(4.5)
    expect(contrast(palette.paper, palette.ink)).toBeGreaterThanOrEqual(4.5)
  })
  test('what shows where the keys act is seen on both papers: 3 to 1', () => {
    for (const paper of papers) expect(contrast(palette.pond, palette[paper])).toBeGreaterThanOrEqual(3)
  })
  test('MUI is given the same colours, none of its own', () => {
    const { colorSchemes } = THEME as { colorSchemes?: Record<string, Pick<Theme, 'palette'>> }
    const scheme = colorSchemes![SCHEMES[name]]!.palette
    expect([scheme.primary.main, scheme.secondary.main, scheme.error.main]).toEqual([
      palette.pond,
      palette.reed,
      palette.clay,
    ])
    expect([scheme.background.default, scheme.background.paper]).toEqual([palette.paper, palette.raised])
    expect([scheme.text.primary, scheme.text.secondary, scheme.divider]).toEqual([
      palette.ink,
      palette.soft,
      palette.mist,
    ])
  })
})

test('the theme is read from the cookie of this browser, and is morning where there is none', () => {
  expect(themeFromCookies(null)).toBe('morning')
  expect(themeFromCookies('heron-theme=dusk')).toBe('dusk')
  expect(themeFromCookies('a=b; heron-theme=dusk; c=d')).toBe('dusk')
  expect(themeFromCookies('heron-theme=morning')).toBe('morning')
  expect(themeFromCookies('other-heron-theme=dusk')).toBe('morning')
  expect(themeFromCookies('heron-theme=duskier')).toBe('morning')
})
