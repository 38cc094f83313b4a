import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import type { ReactNode } from 'react'

/** What is done on the Melody step, in the order of the work. */
export const MELODY_TABS = ['write', 'under', 'elsewhere', 'blocks', 'ends'] as const
export type MelodyTab = (typeof MELODY_TABS)[number]
const NAMES: Readonly<Record<MelodyTab, string>> = { write: 'Notes', under: 'Chords under it', elsewhere: 'Elsewhere on the neck', blocks: 'Block chords', ends: 'Intros and endings' }

/** The head of the Melody step: one matter at a time, so that the music stays in sight. */
export function MelodyPanel({ tab, onTab, threads, onThreads, children }: { tab: MelodyTab; onTab: (tab: MelodyTab) => void; threads: boolean; onThreads: (shown: boolean) => void; children: ReactNode }) {
  return (
    <div className="melody-panel">
      <div className="melody-tabs">
        <ToggleButtonGroup exclusive size="small" value={tab} aria-label="What is done with the melody" onChange={(_, next: MelodyTab | null) => next && onTab(next)}>
          {MELODY_TABS.map((one) => <ToggleButton key={one} value={one}>{NAMES[one]}</ToggleButton>)}
        </ToggleButtonGroup>
        <ToggleButton size="small" value="threads" selected={threads} title="The voices between staff and tablature (K)" onChange={() => onThreads(!threads)}>Threads</ToggleButton>
      </div>
      {children}
    </div>
  )
}
