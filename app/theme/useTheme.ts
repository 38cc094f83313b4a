import { createContext, useContext } from 'react'
import type { ThemeName } from './theme'

export interface ThemeChoice {
  name: ThemeName
  choose: (name: ThemeName) => void
}

export const ThemeChoiceContext = createContext<ThemeChoice>({ name: 'morning', choose: () => {} })
export const useThemeChoice = () => useContext(ThemeChoiceContext)
