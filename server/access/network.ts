import { X509Certificate } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { hostname, networkInterfaces } from 'node:os'
import { dirname, join, resolve } from 'node:path'
import type { generate as selfsigned } from 'selfsigned'

/** The names and addresses by which this machine can be asked on the home network. */
export interface Network {
  /** IPv4, those that a home router gives first. */
  addresses: string[]
  names: string[]
}

const isOfHome = (address: string): boolean => /^(192\.168|10|172\.(1[6-9]|2\d|3[01]))\./.test(address)

export function networkHere(): Network {
  const all = Object.values(networkInterfaces())
    .flatMap((one) => one ?? [])
    .filter(({ family, internal }) => family === 'IPv4' && !internal)
    .map(({ address }) => address)
  const name = hostname().toLowerCase()
  const plain = /^[a-z0-9-]+(\.[a-z0-9-]+)*$/.test(name) ? [name] : []
  return {
    addresses: all.sort((a, b) => Number(isOfHome(b)) - Number(isOfHome(a))),
    names: plain.flatMap((one) => (one.includes('.') ? [one] : [one, `${one}.local`])),
  }
}

/** Whether a Host header names this machine. */
export const isOurs = (host: string | undefined, { addresses, names }: Network): boolean => {
  const name = (host ?? '').toLowerCase().replace(/:\d+$/, '')
  return [...addresses, ...names, 'localhost', '127.0.0.1', '[::1]'].includes(name)
}

const DAY_MS = 86_400_000
/** Browsers take no server's certificate that lasts longer. */
const CERTIFICATE_DAYS = 397
/** What devices are told to trust is told once. */
const AUTHORITY_DAYS = 3_650
/** A certificate is made anew so long before it ends. */
const RENEWED_MS = 30 * DAY_MS
const KIND = { keyType: 'ec', curve: 'P-256', algorithm: 'sha256' } as const
/** Loaded where it is needed: only who serves the network waits for it. */
const generate: typeof selfsigned = async (...given) => (await import('selfsigned')).generate(...given)
const during = (now: number, days: number) => ({
  notBeforeDate: new Date(now - DAY_MS),
  notAfterDate: new Date(now + (days - 1) * DAY_MS),
})

/** A key and what is said of it, PEM. */
interface Signed {
  key: string
  cert: string
}

/** What a server of the home network shows, and what a device that trusts it was given. */
export interface Certificates extends Signed {
  /** The authority that signed it: a device that installs it is warned no more. PEM. */
  authority: string
}

/**
 * The certificates kept beside the book: made at first use, the server's anew where it ends soon or
 * the machine has another address.
 */
export async function certificateBeside(
  book: string,
  network: Network,
  now = Date.now(),
): Promise<Certificates> {
  const folder = dirname(resolve(book))
  mkdirSync(folder, { recursive: true })
  const authority = await kept(folder, 'lan.authority', (cert) => lasts(cert, now), makeAuthority(now))
  const own = await kept(
    folder,
    'lan',
    (cert) => serves(cert, network, now) && isSignedBy(cert, authority.cert),
    () =>
      generate([{ name: 'commonName', value: 'Yellow Heron on this network' }], {
        ...KIND,
        ...during(now, CERTIFICATE_DAYS),
        ca: authority,
        extensions: [
          { name: 'basicConstraints', cA: false },
          { name: 'keyUsage', digitalSignature: true, critical: true },
          { name: 'extKeyUsage', serverAuth: true },
          {
            name: 'subjectAltName',
            altNames: [
              ...['localhost', ...network.names].map((value) => ({ type: 2 as const, value })),
              ...['127.0.0.1', ...network.addresses].map((ip) => ({ type: 7 as const, ip })),
            ],
          },
        ],
      }),
  )
  return { ...own, authority: authority.cert }
}

/** It signs nothing but the certificates of this songbook; its key never leaves this machine. */
const makeAuthority = (now: number) => () =>
  generate([{ name: 'commonName', value: `Yellow Heron on ${hostname()}` }], {
    ...KIND,
    ...during(now, AUTHORITY_DAYS),
    extensions: [
      { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
      { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
    ],
  })

/** A pair of files beside the book, made where there is none that serves. */
async function kept(
  folder: string,
  name: string,
  serves: (cert: string) => boolean,
  make: () => Promise<{ private: string; cert: string }>,
): Promise<Signed> {
  const [keyFile, certFile] = [join(folder, `${name}.key.pem`), join(folder, `${name}.cert.pem`)]
  if (existsSync(keyFile) && existsSync(certFile)) {
    const cert = readFileSync(certFile, 'utf8')
    if (serves(cert)) return { key: readFileSync(keyFile, 'utf8'), cert }
  }
  const made = await make()
  writeFileSync(keyFile, made.private, { mode: 0o600 })
  writeFileSync(certFile, made.cert)
  return { key: made.private, cert: made.cert }
}

const lasts = (cert: string, now: number): boolean => {
  try {
    return Date.parse(new X509Certificate(cert).validTo) > now + RENEWED_MS
  } catch {
    return false
  }
}

const isSignedBy = (cert: string, authority: string): boolean =>
  new X509Certificate(cert).verify(new X509Certificate(authority).publicKey)

function serves(cert: string, { addresses }: Network, now: number): boolean {
  return lasts(cert, now) && addresses.every((ip) => new X509Certificate(cert).checkIP(ip) !== undefined)
}
