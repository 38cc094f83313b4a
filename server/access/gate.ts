import express, { type NextFunction, type Request, type Response, type Router } from 'express'
import { createRequire } from 'node:module'
import { isIPv4 } from 'node:net'
import { join } from 'node:path'
import { LONGEST_PASSPHRASE, SIGNED_IN_MS, type AccessStore } from './accessStore'
import { Slowdown } from './slowdown'

const COOKIE = 'heron'

const fromNetwork = (request: Request): boolean => 'encrypted' in request.socket
const tokenOf = ({ headers }: Request): string =>
  /(?:^|;\s*)heron=([A-Za-z0-9_-]{43})(?:;|$)/.exec(headers.cookie ?? '')?.[1] ?? ''

/**
 * What stands in front of the application for everyone who comes from the network; this machine
 * itself is let through.
 * @param authority what a device may install to trust this songbook's certificate, PEM
 */
export function gate(store: AccessStore, authority: string): Router {
  const slowdown = new Slowdown()
  const router = express.Router()
  const form = express.urlencoded({ extended: false, limit: '4kb' })

  router.get('/sign-in', (request, response) => {
    if (!fromNetwork(request) || store.isOpen(tokenOf(request))) return response.redirect('/')
    signInPage(response, 200)
  })
  router.post('/sign-in', form, async (request: Request, response: Response) => {
    const address = addressOf(request)
    const wait = slowdown.waitOf(address)
    if (wait > 0) {
      const seconds = Math.ceil(wait / 1000)
      response.set('Retry-After', String(seconds))
      return signInPage(
        response,
        429,
        `Too many wrong tries: wait ${seconds} ${seconds === 1 ? 'second' : 'seconds'}.`,
      )
    }
    // Counted before it is looked at: tries that come at once wait for one another too.
    slowdown.wrong(address)
    const passphrase = String((request.body as { passphrase?: unknown } | undefined)?.passphrase ?? '')
    if (passphrase.length > LONGEST_PASSPHRASE || !(await store.isPassphrase(passphrase)))
      return signInPage(response, 401, 'That is not the passphrase.')
    slowdown.right(address)
    setCookie(response, store.begin(), SIGNED_IN_MS)
    response.redirect(303, '/')
  })
  for (const [name, file] of Object.entries(FONTS))
    router.get(`/sign-in/${name}.woff2`, (_request, response) =>
      response.sendFile(packages.resolve(file), { maxAge: SIGNED_IN_MS, immutable: true }),
    )
  // What is told to everyone: the certificate of the authority, without its key.
  router.get('/certificate', (_request, response) => {
    response
      .type('application/x-x509-ca-cert')
      .set('Content-Disposition', 'attachment; filename="yellow-heron.crt"')
      .send(authority)
  })
  router.post('/sign-out', (request, response) => {
    store.end(tokenOf(request))
    setCookie(response, '', 0)
    response.redirect(303, '/sign-in')
  })
  router.use((request: Request, response: Response, next: NextFunction) => {
    if (!fromNetwork(request) || store.isOpen(tokenOf(request))) return next()
    if (request.method === 'GET' && (request.headers.accept ?? '').includes('text/html'))
      return response.redirect(303, '/sign-in')
    response.status(401).type('text/plain').send('Sign in first: open /sign-in on this device.\n')
  })
  router.post('/sign-out-everywhere', (_request, response) => {
    store.endAll()
    response.redirect(303, '/player')
  })
  return router
}

/** IPv4 in its own letters; of IPv6 the network, since one device has many. */
function addressOf({ socket: { remoteAddress = '' } }: Request): string {
  const plain = remoteAddress.replace(/^::ffff:/, '')
  return isIPv4(plain) ? plain : plain.split(':').slice(0, 4).join(':')
}

const setCookie = (response: Response, value: string, maxAge: number): void =>
  void response.cookie(COOKIE, value, { maxAge, httpOnly: true, secure: true, sameSite: 'lax', path: '/' })

/** The page's own fonts: nothing else of the application is given out before it. */
const FONTS = {
  serif: '@fontsource/vollkorn/files/vollkorn-latin-600-normal.woff2',
  sans: '@fontsource/source-sans-3/files/source-sans-3-latin-400-normal.woff2',
  'sans-bold': '@fontsource/source-sans-3/files/source-sans-3-latin-600-normal.woff2',
}
const packages = createRequire(join(process.cwd(), 'package.json'))

const STYLE = `
@font-face { font-family: Vollkorn; font-weight: 600; font-display: swap; src: url(/sign-in/serif.woff2) format('woff2'); }
@font-face { font-family: 'Source Sans 3'; font-weight: 400; font-display: swap; src: url(/sign-in/sans.woff2) format('woff2'); }
@font-face { font-family: 'Source Sans 3'; font-weight: 600; font-display: swap; src: url(/sign-in/sans-bold.woff2) format('woff2'); }
body { margin: 0; min-height: 100vh; display: grid; place-content: center; background: #FBF7EC; color: #1E2B2E; font: 17px/1.45 'Source Sans 3', system-ui, sans-serif; }
main { width: min(22rem, 88vw); display: grid; gap: 12px; }
h1 { font: 600 1.9rem/1.15 Vollkorn, Georgia, serif; margin: 0; }
p { margin: 0; } .fault { color: #A8482F; font-weight: 600; }
label { display: grid; gap: 4px; } form { display: grid; gap: 14px; }
input { font: inherit; padding: 10px; border: 0; border-bottom: 2px solid #2F5D62; background: #FFFDF6; color: inherit; }
button { font: inherit; font-weight: 600; padding: 11px; border: 0; border-radius: 3px; background: #2F5D62; color: #FBF7EC; cursor: pointer; }
:focus-visible { outline: 2px solid #2F5D62; outline-offset: 2px; }
@media (prefers-color-scheme: dark) { body { background: #12191B; color: #EDE6D3; } input { background: #1A2427; border-color: #8FBDBD; } button { background: #8FBDBD; color: #12191B; } .fault { color: #E08A6D; } :focus-visible { outline-color: #8FBDBD; } }
`

/** Works without scripts. @param fault what was wrong with the last try */
function signInPage(response: Response, status: number, fault = ''): void {
  const nonce = response.locals.nonce as string
  response.status(status).type('html').set('Cache-Control', 'no-store').send(`<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>Sign in · Yellow Heron</title><link rel="icon" href="data:,"><style nonce="${nonce}">${STYLE}</style></head>
<body><main><h1>Yellow Heron</h1><p>This songbook is on another machine of this network. Its passphrase lets this device in for 30 days.</p>
<form method="post" action="/sign-in">
${fault ? `<p class="fault" role="alert">${fault}</p>` : ''}
<label>Passphrase <input type="password" name="passphrase" autocomplete="current-password" required autofocus maxlength="${LONGEST_PASSPHRASE}"></label>
<button>Sign in</button></form></main></body></html>
`)
}
