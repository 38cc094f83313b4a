/**
 * What of the songbook a browser keeps for reading while the server is away, and what it answers
 * with then. Nothing here knows the browser: the service worker asks, and does.
 */

import { firstOf } from '../../core/lists'

/**
 * Pages that are read, of the addresses of the application; what asks the server anew with every
 * touch (files, trainer, log) is not among them.
 */
const READ = [
  /^\/$/,
  /^\/tunes\/[^/]+\/[a-z]+$/,
  /^\/sets(\/[^/]+)?$/,
  /^\/stand$/,
  /^\/guide(\/[a-z-]+)?$/,
  /^\/(grips|player)$/,
]
/** Addresses under a tune that are no pages. */
const NO_PAGES = /^\/tunes\/[^/]+\/(edits|file)$/

/** Whether a page of this address is kept when it has been open. */
export const isRead = ({ pathname }: URL): boolean =>
  READ.some((one) => one.test(pathname)) && !NO_PAGES.test(pathname)

/** What a page asks for besides its own address, kept with it. */
export const isReadWith = ({ pathname }: URL): boolean =>
  pathname === '/stand/pages' || pathname.startsWith('/guide-pictures/')

/** What a request is about, for who keeps pages. */
export type RequestKind = 'signs out' | 'signs in' | 'file' | 'kept' | 'page' | 'other'

/**
 * Signing in and out are pages too, and come before any: a device that was signed out from
 * elsewhere, or for its time, is sent to sign in whatever it asks for, and what it keeps is
 * forgotten there.
 */
export function requestKindOf(url: URL, { method, mode }: Pick<Request, 'method' | 'mode'>): RequestKind {
  if (method === 'POST') return /^\/sign-out(-everywhere)?$/.test(url.pathname) ? 'signs out' : 'other'
  if (url.pathname === '/sign-in') return 'signs in'
  if (url.pathname.startsWith('/assets/')) return 'file'
  if (isReadWith(url) || (mode === 'navigate' && isRead(url))) return 'kept'
  return mode === 'navigate' ? 'page' : 'other'
}

/** The tune that a page is of; null for other pages. */
export const tuneOfAddress = ({ pathname, searchParams }: URL): string | null =>
  pathname === '/stand' ? searchParams.get('tune') : (/^\/tunes\/([^/]+)\//.exec(pathname)?.[1] ?? null)

/** The step of a tune that a page is; undefined for other pages. */
export const stepOfAddress = ({ pathname }: URL): string | undefined =>
  /^\/tunes\/[^/]+\/([a-z]+)$/.exec(pathname)?.[1]

/** Pages of a tune that are no steps, or do not show the tune as the steps do. */
const BY_THEMSELVES = ['sheet', 'why']
/** Steps that say most of a tune where one is not kept, the first first; then any other. */
const SAY_MOST = ['practice', 'lines', 'colour']

/**
 * Which kept page stands in for a step of a tune that is not kept, whatever steps there are: they
 * all show the same tune. Null where none does.
 */
export function stepInstead(wanted: URL, kept: readonly URL[]): URL | null {
  const isStep = (address: URL) => {
    const step = stepOfAddress(address)
    return step !== undefined && isRead(address) && !BY_THEMSELVES.includes(step)
  }
  if (!isStep(wanted)) return null
  const steps = kept.filter((one) => isStep(one) && tuneOfAddress(one) === tuneOfAddress(wanted))
  const best = SAY_MOST.map((name) => steps.find((one) => stepOfAddress(one) === name)).find((one) => one)
  return best ?? steps[0] ?? null
}

/**
 * The kept pages of the stand that were drawn for another window, the nearest first in size; null
 * where the tune is not kept so.
 */
export function otherWindow(wanted: URL, kept: readonly URL[]): URL | null {
  const same = kept.filter(
    (one) => one.pathname === wanted.pathname && withoutSize(one) === withoutSize(wanted),
  )
  const far = (one: URL) => Math.abs(Math.log(sizeOf(one, 'width') / sizeOf(wanted, 'width')))
  return same.sort((a, b) => far(a) - far(b))[0] ?? null
}

const sizeOf = (address: URL, side: 'width' | 'height'): number => Number(address.searchParams.get(side)) || 1

function withoutSize(address: URL): string {
  const rest = new URLSearchParams(address.searchParams)
  rest.delete('width')
  rest.delete('height')
  rest.sort()
  return rest.toString()
}

/** A page that is kept, as it is listed. */
export interface KeptPage {
  address: URL
  /** The title of the page, as its head has it. */
  title: string
}

const PLACES: readonly (readonly [label: string, isIt: (address: URL) => boolean])[] = [
  ['Practice', (address) => stepOfAddress(address) === 'practice'],
  ['Sheet', (address) => stepOfAddress(address) === 'sheet'],
  ['Stand', ({ pathname }) => pathname === '/stand'],
]

const plain = (title: string): string => title.replace(/ · .*$/, '')
const escaped = (text: string): string => text.replace(/[&<>"]/g, (letter) => `&#${letter.codePointAt(0)};`)
const link = ({ pathname, search }: URL, label: string): string =>
  `<a href="${escaped(pathname + search)}">${escaped(label)}</a>`

/** The palette of `app/theme`, which writes it with each page of its own. */
const PALETTE = `:root { --heron-palette-background-default: #FBF7EC; --heron-palette-text-primary: #1E2B2E; --heron-palette-primary-main: #2F5D62; --heron-palette-divider: #C9D3CF; }
@media (prefers-color-scheme: dark) { :root { --heron-palette-background-default: #12191B; --heron-palette-text-primary: #EDE6D3; --heron-palette-primary-main: #8FBDBD; --heron-palette-divider: #354448; color-scheme: dark; } }`

/** The page that says so looks this often whether the server is back, in seconds. */
const LOOK_S = 5

/**
 * The page that is shown for one that is not kept: what is, with the way there.
 * @param style address of the application's own style sheet, where it is kept
 */
export function keptPagesAsHtml(kept: readonly KeptPage[], style: string | null): string {
  const tunes = new Map<string, KeptPage[]>()
  for (const page of kept) {
    const tune = tuneOfAddress(page.address)
    if (tune !== null) tunes.set(tune, [...(tunes.get(tune) ?? []), page])
  }
  const others = kept.filter(({ address }) => tuneOfAddress(address) === null)
  const rows = [...tunes.values()]
    .map((pages) => {
      const of = pages.find(({ address }) => stepOfAddress(address) !== undefined) ?? firstOf(pages)
      const places = PLACES.flatMap(([label, isIt]) => {
        const page = pages.find(({ address }) => isIt(address))
        return page ? [link(page.address, label)] : []
      })
      return { title: plain(of.title), places: places.length > 0 ? places : [link(of.address, 'Open')] }
    })
    .sort((a, b) => a.title.localeCompare(b.title))
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><meta http-equiv="refresh" content="${LOOK_S}">
<title>The server does not answer · Yellow Heron</title>${style === null ? '' : `<link rel="stylesheet" href="${escaped(style)}">`}<style>${PALETTE}</style></head>
<body><main class="page"><h1>The server does not answer</h1>
<p>This page is not kept in this browser. ${rows.length + others.length > 0 ? 'These are, for reading:' : 'Pages that were open are kept for reading, from now on.'}</p>
${rows.length > 0 ? `<ul>${rows.map(({ title, places }) => `<li><b>${escaped(title)}</b>: ${places.join(' · ')}</li>`).join('\n')}</ul>` : ''}
${others.length > 0 ? `<p>${others.map(({ address, title }) => link(address, plain(title))).join(' · ')}</p>` : ''}
<p><a href="">Try again</a></p></main></body></html>
`
}
