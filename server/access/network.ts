import { X509Certificate } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { hostname, networkInterfaces } from 'node:os'
import { dirname, join, resolve } from 'node:path'
import { generate } from 'selfsigned'

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

/** Browsers take none that lasts longer. */
const CERTIFICATE_DAYS = 397
const DAY_MS = 86_400_000
/** It is made anew so long before it ends. */
const RENEWED_MS = 30 * DAY_MS

/** The certificate kept beside the book: made at first use, and anew where it ends soon or the machine has another address. */
export async function certificateBeside(
  book: string,
  network: Network,
  now = Date.now(),
): Promise<{ key: string; cert: string }> {
  const folder = dirname(resolve(book))
  const [keyFile, certFile] = [join(folder, 'lan.key.pem'), join(folder, 'lan.cert.pem')]
  if (existsSync(keyFile) && existsSync(certFile)) {
    const cert = readFileSync(certFile, 'utf8')
    if (serves(cert, network, now)) return { key: readFileSync(keyFile, 'utf8'), cert }
  }
  const made = await generate([{ name: 'commonName', value: 'Yellow Heron on this network' }], {
    keyType: 'ec',
    curve: 'P-256',
    algorithm: 'sha256',
    notBeforeDate: new Date(now - DAY_MS),
    notAfterDate: new Date(now + (CERTIFICATE_DAYS - 1) * DAY_MS),
    extensions: [
      { name: 'basicConstraints', cA: false },
      {
        name: 'subjectAltName',
        altNames: [
          ...['localhost', ...network.names].map((value) => ({ type: 2 as const, value })),
          ...['127.0.0.1', ...network.addresses].map((ip) => ({ type: 7 as const, ip })),
        ],
      },
    ],
  })
  mkdirSync(folder, { recursive: true })
  writeFileSync(keyFile, made.private, { mode: 0o600 })
  writeFileSync(certFile, made.cert)
  return { key: made.private, cert: made.cert }
}

function serves(cert: string, { addresses }: Network, now: number): boolean {
  try {
    const read = new X509Certificate(cert)
    return (
      Date.parse(read.validTo) > now + RENEWED_MS && addresses.every((ip) => read.checkIP(ip) !== undefined)
    )
  } catch {
    return false
  }
}
