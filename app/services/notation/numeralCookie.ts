import { createContext, useContext } from 'react'
import type { NumeralSchool } from '../../../core/analysis/numeral'

/**
 * Which school the player reads numerals in. Kept in this browser, and known to the server so that
 * its page is right at once.
 */
export interface NumeralChoice {
  school: NumeralSchool
  choose: (school: NumeralSchool) => void
}

export const NumeralContext = createContext<NumeralChoice>({ school: 'case', choose: () => {} })
export const useNumerals = () => useContext(NumeralContext)

const COOKIE = 'heron-numerals'
const YEAR_SECONDS = 31_536_000

export const numeralsFromCookies = (cookies: string | null): NumeralSchool =>
  /(?:^|;\s*)heron-numerals=capitals(?:;|$)/.test(cookies ?? '') ? 'capitals' : 'case'

export function keepNumerals(school: NumeralSchool): void {
  document.cookie = `${COOKIE}=${school}; path=/; max-age=${YEAR_SECONDS}; samesite=lax`
}
