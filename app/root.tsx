import '@fontsource-variable/source-sans-3/index.css'
import '@fontsource-variable/vollkorn/index.css'
import './theme/base.css'
import './theme/pages.css'
import './theme/places.css'
import './workspace/workspace.css'
import './services/notation/systems.css'
import './services/notation/sungWords.css'
import './services/notation/figure.css'
import './steps/chart/chart.css'
import './steps/colour/colour.css'
import './steps/lines/lines.css'
import './steps/rhythm/rhythm.css'
import './steps/practice/practice.css'
import './services/notation/threads.css'
import './steps/sheet/sheet.css'
import './theme/windows.css'
import './services/grips/grips.css'
import './steps/melody/melody.css'
import Button from '@mui/material/Button'
import { ThemeProvider, useColorScheme } from '@mui/material/styles'
import { useContext, useEffect, useState, type ReactNode } from 'react'
import {
  isRouteErrorResponse,
  Link,
  Links,
  Meta,
  Outlet,
  Scripts,
  ScrollRestoration,
  useRouteLoaderData,
  type ShouldRevalidateFunctionArgs,
} from 'react-router'
import type { Route } from './+types/root'
import type { NumeralSchool } from '../core/analysis/numeral'
import { readLiking, readPlayer } from '../db/player'
import { database } from './database.server'
import {
  keepNumerals,
  NumeralContext,
  numeralsFromCookies,
  type NumeralChoice,
} from './services/notation/numeralCookie'
import { wasUnreachable } from './services/forms/unlessUnreachable'
import { Away } from './services/offline/Away'
import { isServerThere, readsThroughWorker } from './services/offline/offline'
import { useKeptPage } from './services/offline/useKept'
import { PlayerContext } from './services/player/PlayerContext'
import { usePlayerState } from './services/player/usePlayerState'
import { NonceContext } from './nonce'
import { AROUND, keepTheme, SCHEMES, THEME, themeFromCookies, type ThemeName } from './theme/theme'
import { ThemeChoiceContext } from './theme/useTheme'

export function loader({ request }: Route.LoaderArgs) {
  const cookies = request.headers.get('cookie')
  return {
    theme: themeFromCookies(cookies),
    numerals: numeralsFromCookies(cookies),
    player: { settings: readPlayer(database()), liking: readLiking(database()) },
  }
}

/** Going from step to step of a tune asks the server nothing: it may be away. */
export function shouldRevalidate({
  currentUrl,
  nextUrl,
  formMethod,
  actionResult,
  defaultShouldRevalidate,
}: ShouldRevalidateFunctionArgs): boolean {
  if (wasUnreachable(actionResult)) return false
  const tuneOf = ({ pathname }: URL) => /^\/tunes\/([^/]+)\/(?!sheet$|why$)\w+$/.exec(pathname)?.[1]
  return !formMethod && tuneOf(currentUrl) !== undefined && tuneOf(currentUrl) === tuneOf(nextUrl)
    ? false
    : defaultShouldRevalidate
}

export const meta: Route.MetaFunction = () => [{ title: 'Yellow Heron' }]

/**
 * Tells MUI which of the two is chosen; the choice itself is ours, in a cookie, so that the server
 * sends the page in it.
 */
function Scheme({ name }: { name: ThemeName }) {
  const { setMode } = useColorScheme()
  useEffect(() => setMode(SCHEMES[name]), [name, setMode])
  return null
}

export function Layout({ children }: { children: ReactNode }) {
  const nonce = useContext(NonceContext)
  const loaded = useRouteLoaderData<typeof loader>('root')
  const [chosen, setChosen] = useState<ThemeName | null>(null)
  const name = chosen ?? loaded?.theme ?? 'morning'
  const choose = (next: ThemeName) => {
    keepTheme(next)
    setChosen(next)
  }
  const [chosenSchool, setSchool] = useState<NumeralSchool | null>(null)
  const numerals: NumeralChoice = {
    school: chosenSchool ?? loaded?.numerals ?? 'case',
    choose: (next) => {
      keepNumerals(next)
      setSchool(next)
    },
  }
  return (
    <html lang="en" data-theme={name} data-scheme={SCHEMES[name]}>
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <link rel="icon" href="/heron.svg" type="image/svg+xml" />
        <link rel="apple-touch-icon" href="/heron-180.png" />
        <link rel="manifest" href="/heron.webmanifest" crossOrigin="use-credentials" />
        <meta name="theme-color" content={AROUND[name]} />
        <Meta />
        {/*
         * The chart library adds its rules to this element; without it it would make one that the
         * page's policy forbids.
         */}
        <style id="plotly.js-style-global" nonce={nonce} suppressHydrationWarning />
        <Links />
      </head>
      <body>
        <ThemeChoiceContext.Provider value={{ name, choose }}>
          <NumeralContext.Provider value={numerals}>
            <ThemeProvider theme={THEME} defaultMode={SCHEMES[name]} storageManager={null} noSsr>
              <Scheme name={name} />
              {children}
            </ThemeProvider>
          </NumeralContext.Provider>
        </ThemeChoiceContext.Provider>
        <ScrollRestoration nonce={nonce} />
        <Scripts nonce={nonce} />
      </body>
    </html>
  )
}

export default function App({ loaderData }: Route.ComponentProps) {
  const player = usePlayerState(loaderData.player)
  useKeptPage()
  // Said to whoever drives the page: from here on it listens.
  useEffect(() => {
    document.documentElement.dataset.listening = 'yes'
  }, [])
  return (
    <PlayerContext.Provider value={player}>
      <Outlet />
      <Away />
    </PlayerContext.Provider>
  )
}

/** How often a page that got no answer looks whether the server is back, in ms. */
const LOOK_MS = 2_000

function headingOf(error: unknown): string {
  const status = isRouteErrorResponse(error) ? error.status : null
  if (status === 503) return 'The book cannot be opened'
  if (status === 404) return 'There is nothing here'
  return isRouteErrorResponse(error) && status === 422 ? error.statusText : 'Something went wrong'
}
function reasonOf(error: unknown): string {
  if (isRouteErrorResponse(error)) return String(error.data || error.statusText)
  return error instanceof Error ? error.message : 'The page could not be shown.'
}

/**
 * What is shown instead of a page that cannot be: what was wrong and where to go. A page the server
 * did not answer comes by itself when it is back.
 */
export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  const known = isRouteErrorResponse(error)
  const unreachable = !known && error instanceof TypeError && /fetch|load|network/i.test(error.message)
  useEffect(() => {
    if (!unreachable) return
    const look = async (first: boolean) => {
      // What is kept of the page, or what is kept at all, comes by loading it: the first look is
      // for that.
      if ((await isServerThere()) ? !first : first && readsThroughWorker()) window.location.reload()
    }
    void look(true)
    const timer = setInterval(() => void look(false), LOOK_MS)
    return () => clearInterval(timer)
  }, [unreachable])
  if (unreachable)
    return (
      <main className="page">
        <h1>The server does not answer</h1>
        <p role="status">
          This page comes as soon as it is back. What you made and is not yet saved is kept in this browser.
        </p>
        <p>
          <Button variant="contained" onClick={() => window.location.reload()}>
            Try again now
          </Button>
        </p>
      </main>
    )
  const bookFault = known && error.status === 503
  return (
    <main className="page">
      <h1>{headingOf(error)}</h1>
      <p>{reasonOf(error)}</p>
      {bookFault ? (
        <p>
          Nothing can be kept until that is mended. <a href="/">Try again</a>
        </p>
      ) : (
        <p>
          <Link to="/">Back to the songbook</Link>
        </p>
      )}
    </main>
  )
}
