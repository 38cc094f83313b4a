import { Link } from 'react-router'

/** The tags in use, and the tunes that stand twice: what of the book is shown. */
export function TagLine({
  tags,
  tag,
  doubled,
  twice,
}: {
  tags: readonly { tag: string; tunes: number }[]
  /** The one shown; null for all. */
  tag: string | null
  doubled: number
  twice: boolean
}) {
  if (tags.length === 0 && doubled === 0) return null
  return (
    <nav className="songbook-tags" aria-label="Tags">
      <Link to="/" aria-current={tag === null && !twice ? 'true' : undefined}>
        All
      </Link>
      {tags.map((one) => (
        <Link
          key={one.tag}
          to={`/?${new URLSearchParams({ tag: one.tag }).toString()}`}
          aria-current={tag === one.tag ? 'true' : undefined}
        >
          {one.tag} <small>{one.tunes}</small>
        </Link>
      ))}
      {doubled > 0 && (
        <Link to="/?twice=yes" aria-current={twice ? 'true' : undefined}>
          Stand twice <small>{doubled}</small>
        </Link>
      )}
    </nav>
  )
}
