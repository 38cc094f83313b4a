import { firstOf } from '../../../core/lists'
import { faultWords } from '../../../core/result'
import Button from '@mui/material/Button'
import { useRef, useState } from 'react'
import { Link } from 'react-router'
import { z } from 'zod'
import { summedUp } from './summedUp'
import { Working } from '../../services/forms/Notices'
import { UNREACHABLE } from '../../services/forms/unlessUnreachable'

const answer = z.union([
  z.object({
    tunes: z.array(z.object({ id: z.string(), title: z.string(), warnings: z.array(z.string()) })),
    refused: z.array(z.string()),
  }),
  z.object({ fault: z.string() }),
])
type Brought = { id: string; title: string; warnings: string[] }

/** Files in a zip that are larger are none of ours, in bytes. */
const MOST_BYTES = 20_000_000

/** Takes tunes out of files and puts them into the songbook, one file after another. */
export function BringTunes({ endings }: { endings: readonly string[] }) {
  const [state, setState] = useState<{ done: number; of: number } | null>(null)
  const [brought, setBrought] = useState<Brought[]>([])
  const [refused, setRefused] = useState<string[]>([])
  const running = useRef<AbortController | null>(null)
  const known = summedUp(brought.map(({ title, warnings }) => ({ of: title, messages: warnings })))
  const accept = [...endings, 'zip'].map((ending) => `.${ending}`).join()
  const bring = async (given: readonly File[]) => {
    const own = new AbortController()
    running.current = own
    setBrought([])
    setRefused([])
    setState({ done: 0, of: 1 })
    try {
      const files = (await Promise.all(given.map((file) => unpacked(file, endings)))).flat()
      if (files.length === 0) setRefused(['There is no file in it that can be read here.'])
      for (const [at, { name, bytes }] of files.entries()) {
        const sent = await fetch(`/files/tunes?${new URLSearchParams({ name })}`, {
          method: 'POST',
          body: bytes as BodyInit,
          headers: { 'Content-Type': 'application/octet-stream' },
          signal: own.signal,
        })
        const type = sent.headers.get('content-type') ?? ''
        const said = type.includes('json')
          ? answer.parse(await sent.json())
          : { fault: `${name}: ${await sent.text()}` }
        if ('fault' in said) setRefused((before) => [...before, said.fault])
        else {
          setBrought((before) => [...before, ...said.tunes])
          setRefused((before) => [...before, ...said.refused])
        }
        setState({ done: at + 1, of: files.length })
      }
    } catch (error) {
      if (!own.signal.aborted)
        setRefused((before) => [...before, error instanceof TypeError ? UNREACHABLE : faultWords(error)])
    }
    setState(null)
  }
  return (
    <form
      className="files-form"
      onSubmit={(event) => {
        event.preventDefault()
        const files = new FormData(event.currentTarget).getAll('files').filter((one) => one instanceof File)
        void bring(files)
      }}
    >
      <label>
        Files <input type="file" name="files" multiple accept={accept} required />
      </label>
      {state ? (
        <Working label="Bringing tunes in" at={state} onStop={() => running.current?.abort()} />
      ) : (
        <Button type="submit">Bring in</Button>
      )}
      {refused.length > 0 && (
        <div className="notice" role="alert">
          {refused.map((why, at) => (
            <p key={at}>{why}</p>
          ))}
        </div>
      )}
      {brought.length > 0 && (
        <ul className="files-brought" aria-label="Brought in">
          {brought.map(({ id, title }) => (
            <li key={id}>
              <Link to={`/tunes/${id}/chart`}>{title}</Link>
            </li>
          ))}
        </ul>
      )}
      {known.length > 0 && (
        <section aria-label="To know of what was brought in">
          {known.map(({ message, of }) => (
            <p key={message} className="quiet">
              {of.length > 1 ? `${of.length} tunes: ` : `${firstOf(of)}: `}
              {message}
            </p>
          ))}
        </section>
      )}
    </form>
  )
}

/** A file, or those inside a zip. */
async function unpacked(
  file: File,
  endings: readonly string[],
): Promise<{ name: string; bytes: Uint8Array }[]> {
  const bytes = new Uint8Array(await file.arrayBuffer())
  if (!/\.zip$/i.test(file.name)) return [{ name: file.name, bytes }]
  const { unzipSync } = await import('fflate')
  const readable = new RegExp(`\\.(${endings.join('|')})$`, 'i')
  const inside = unzipSync(bytes, {
    filter: ({ name, originalSize }) => readable.test(name) && originalSize <= MOST_BYTES,
  })
  return Object.entries(inside).map(([name, one]) => ({ name: name.replace(/^.*\//, ''), bytes: one }))
}
