import { createContext, useContext } from 'react'
import type { Liking } from '../../../core/reharm/taste'
import { DEFAULT_PLAYER, type PlayerSettings } from '../../../core/player/playerSettings'
import type { KeepingState } from './settingsOutbox'

/** The player as the pages of a tune know them. */
export interface KnownPlayer {
  settings: PlayerSettings
  liking: Liking
  /** Whether what was changed is in the database. */
  keeping: KeepingState
  /** Keeps some settings, at once here and then in the database. */
  change: (changed: Partial<PlayerSettings>) => void
  /** A change of this rule was kept by hand. */
  liked: (rule: string) => void
  /** Forgets what was counted for a rule, or for all. */
  forget: (rule?: string) => void
}

export const PlayerContext = createContext<KnownPlayer>({
  settings: DEFAULT_PLAYER,
  liking: {},
  keeping: 'saved',
  change: () => {},
  liked: () => {},
  forget: () => {},
})
export const usePlayerSettings = () => useContext(PlayerContext)
