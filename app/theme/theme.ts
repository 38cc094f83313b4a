import { createTheme, type Theme } from '@mui/material/styles'

export type ThemeName = 'morning' | 'dusk'

/**
 * The one palette. MUI writes it as CSS variables (`--heron-palette-…`), which base.css gives short
 * names for everything that is not MUI.
 */
export const PALETTES = {
  morning: {
    paper: '#FBF7EC',
    raised: '#FFFDF6',
    ink: '#1E2B2E',
    soft: '#4A5B5E',
    pond: '#2F5D62',
    onPond: '#FBF7EC',
    reed: '#D9A21B',
    onReed: '#1E2B2E',
    clay: '#A8482F',
    mist: '#C9D3CF',
  },
  dusk: {
    paper: '#12191B',
    raised: '#1A2427',
    ink: '#EDE6D3',
    soft: '#AEB8B2',
    pond: '#8FBDBD',
    onPond: '#12191B',
    reed: '#E3B23C',
    onReed: '#12191B',
    clay: '#E08A6D',
    mist: '#354448',
  },
} as const

export const SERIF = "'Accidentals', 'Signs', 'Vollkorn Variable', Georgia, serif"
export const SANS = "'Accidentals', 'Signs', 'Source Sans 3 Variable', system-ui, sans-serif"

/** What MUI calls the two. */
export const SCHEMES: Readonly<Record<ThemeName, 'light' | 'dark'>> = { morning: 'light', dusk: 'dark' }

/** The colour of what a device draws around the page. */
export const AROUND: Readonly<Record<ThemeName, string>> = {
  morning: PALETTES.morning.paper,
  dusk: PALETTES.dusk.paper,
}

const schemeOf = (name: ThemeName) => {
  const c = PALETTES[name]
  return {
    palette: {
      mode: SCHEMES[name],
      primary: { main: c.pond, contrastText: c.onPond },
      secondary: { main: c.reed, contrastText: c.onReed },
      error: { main: c.clay },
      background: { default: c.paper, paper: c.raised },
      text: { primary: c.ink, secondary: c.soft },
      divider: c.mist,
    },
  }
}

const SHADOW = '0 6px 24px var(--shade)'

const FOCUS = { outline: '2px solid var(--pond)', outlineOffset: 2 }

export const THEME: Theme = createTheme({
  cssVariables: { cssVarPrefix: 'heron', colorSchemeSelector: '[data-scheme="%s"]' },
  colorSchemes: { light: schemeOf('morning'), dark: schemeOf('dusk') },
  shape: { borderRadius: 3 },
  shadows: ['none', ...Array<string>(24).fill(SHADOW)] as Theme['shadows'],
  typography: {
    fontFamily: SANS,
    fontSize: 14,
    h1: { fontFamily: SERIF, fontWeight: 560, fontSize: '2rem', lineHeight: 1.15 },
    h2: { fontFamily: SERIF, fontWeight: 560, fontSize: '1.25rem', lineHeight: 1.2 },
    button: { textTransform: 'none', fontWeight: 560, letterSpacing: 0 },
  },
  transitions: {
    duration: {
      shortest: 90,
      shorter: 110,
      short: 130,
      standard: 150,
      complex: 180,
      enteringScreen: 130,
      leavingScreen: 110,
    },
  },
  components: {
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      styleOverrides: { root: { '&.Mui-focusVisible': FOCUS } },
    },
    MuiButton: {
      defaultProps: { disableElevation: true, variant: 'outlined', color: 'inherit' },
      styleOverrides: {
        root: {
          minHeight: 36,
          borderColor: 'var(--mist)',
          paddingInline: 14,
          '&.MuiButton-outlined:hover': { borderColor: 'var(--pond)', backgroundColor: 'transparent' },
        },
      },
    },
    MuiIconButton: {
      styleOverrides: { root: { borderRadius: 3, minWidth: 36, minHeight: 36, color: 'var(--ink)' } },
    },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          minHeight: 36,
          paddingBlock: 4,
          paddingInline: 12,
          textTransform: 'none',
          color: 'var(--ink)',
          borderColor: 'var(--mist)',
          '&.Mui-selected, &.Mui-selected:hover': {
            color: 'var(--ink)',
            backgroundColor: 'transparent',
            boxShadow: 'inset 0 -3px 0 var(--reed)',
            fontWeight: 650,
          },
        },
      },
    },
    MuiSlider: {
      styleOverrides: {
        root: { color: 'var(--pond)', height: 2 },
        thumb: {
          width: 18,
          height: 18,
          borderRadius: '50% 50% 50% 2px',
          transform: 'translate(-50%, -50%) rotate(-45deg)',
          backgroundColor: 'var(--reed)',
          '&::before': { boxShadow: 'none' },
          '&:hover, &.Mui-active, &.Mui-focusVisible': {
            boxShadow: '0 0 0 3px var(--paper), 0 0 0 6px var(--pond)',
          },
        },
        rail: { opacity: 1, backgroundColor: 'var(--mist)' },
        mark: { height: 8, width: 2, backgroundColor: 'var(--soft)' },
        markLabel: { fontSize: '0.8rem', color: 'var(--soft)' },
      },
    },
    // Flat as everything here: a thumb with an edge instead of a shadow.
    MuiSwitch: { styleOverrides: { thumb: { boxShadow: 'inset 0 0 0 1px var(--soft)' } } },
    // Without the rules by which a browser's own filling in is noticed (nothing here is filled in
    // so): put in and out with every field, they had all styles of the page looked up again.
    MuiInputBase: { defaultProps: { disableInjectingGlobalStyles: true } },
    MuiTextField: { defaultProps: { variant: 'standard' } },
    MuiTooltip: {
      styleOverrides: {
        tooltip: { backgroundColor: 'var(--ink)', color: 'var(--paper)', fontSize: '0.8rem' },
      },
    },
    MuiDialog: { styleOverrides: { paper: { borderTop: '3px solid var(--reed)' } } },
    MuiSnackbarContent: {
      styleOverrides: { root: { backgroundColor: 'var(--ink)', color: 'var(--paper)' } },
    },
  },
})

const COOKIE = 'heron-theme'
const YEAR_SECONDS = 31_536_000

export const themeFromCookies = (cookies: string | null): ThemeName =>
  /(?:^|;\s*)heron-theme=dusk(?:;|$)/.test(cookies ?? '') ? 'dusk' : 'morning'

/** Remembers the theme in this browser; the next page comes from the server in it. */
export function keepTheme(name: ThemeName): void {
  document.cookie = `${COOKIE}=${name}; path=/; max-age=${YEAR_SECONDS}; samesite=lax`
}
