import LinearProgress from '@mui/material/LinearProgress'
import { useShare, type SearchProgressStore } from '../workers/progress'

interface Props {
  progress: SearchProgressStore
  /** What is looked for, for those who listen. */
  label: string
  /** Said before the percent; without it only the bar is drawn. */
  word?: string
}

/** How far a search is, drawn as it goes on. */
export function SearchProgress({ progress, label, word }: Props) {
  const percent = 100 * useShare(progress)
  return (
    <>
      <LinearProgress variant="determinate" value={percent} aria-label={label} />
      {word && (
        <span>
          <span className="search-word">{word}</span>
          {/* The bar says it too: read out at every change it would drown everything else. */}
          <span aria-hidden>{Math.round(percent)}%</span>
        </span>
      )}
    </>
  )
}
