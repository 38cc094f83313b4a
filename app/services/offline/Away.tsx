import Button from '@mui/material/Button'
import { useEffect, useState } from 'react'
import { writtenAs } from '../words/written'
import { isServerThere, keptAt, readsThroughWorker } from './offline'

/** How often a page that is read without the server looks whether it is back, in ms. */
const LOOK_MS = 5_000

const momentInWords = writtenAs({ dateStyle: 'long', timeStyle: 'short' })

/**
 * Says that a page was opened from what this browser kept, of when that is, and when the server is
 * back.
 */
export function Away() {
  const [read, setRead] = useState<{ of: Date | null; isBack: boolean } | null>(null)
  useEffect(() => {
    if (!readsThroughWorker()) return
    let timer: ReturnType<typeof setTimeout> | undefined
    let left = false
    const look = async (before: boolean) => {
      const there = await isServerThere()
      if (left || (there && !before)) return
      const of = await keptAt(location.href)
      if (left) return
      setRead((now) => ({ of: now?.of ?? of, isBack: there }))
      if (!there) timer = setTimeout(() => void look(true), LOOK_MS)
    }
    void look(false)
    return () => {
      left = true
      clearTimeout(timer)
    }
  }, [])
  if (!read) return null
  return (
    <div className="notice away" role="status">
      {read.isBack
        ? 'The server is back. '
        : `The server does not answer. This is what this browser kept${read.of ? ` on ${momentInWords(read.of)}` : ''}, for reading. `}
      {read.isBack && (
        <Button size="small" variant="outlined" onClick={() => location.reload()}>
          Read it anew
        </Button>
      )}
      <Button size="small" onClick={() => setRead(null)}>
        Close
      </Button>
    </div>
  )
}
