import { firstOf } from '../lists'
import type { Degree } from '../pitch/degree'
import type { Descriptor } from './descriptor'
import type { DegreeNeeds } from './tones'

/**
 * One spelling for each meaning: `C-Δ7`, `CmMaj7` and `Cm(maj7)` all become `Cm(maj7)`.
 * Reading the answer gives the same degrees (a property test holds this).
 */
export function canonicalSuffix(d: Descriptor, needs: DegreeNeeds): string {
  const omits = [...new Set(d.omits)]
    .sort()
    .map((omit) => `no${omit}`)
    .join('')
  if (d.alt) return `7alt${omits}`

  const has = (...degrees: Degree[]) => degrees.some((degree) => needs.has(degree))
  const rest = new Set<Degree>(needs.keys())
  const said = (...degrees: Degree[]) => degrees.forEach((degree) => rest.delete(degree))
  said('1', '5')

  const ninth = has('b9', '9', '#9', '2')
  const seventh = has('7', 'b7', 'bb7')
  // C11add4 has lost its third to the fourth: however it was written, that is a suspension.
  const hidden: Degree[] =
    has('4') && !has('3', 'b3') && !d.omits.includes('3') && d.suspensions.length === 0 ? ['4'] : []
  const suspensions = [...d.suspensions, ...hidden]
  const sus = suspensions.length > 0
  const minor =
    has('b3') ||
    (!sus && d.omits.includes('3') && ['minor', 'diminished', 'half-diminished'].includes(d.quality))
  said('3', 'b3', '7', 'b7', 'bb7')

  let number = ''
  if (d.number === '5') number = '5'
  else if (has('6') && !seventh) {
    number = has('9') ? '6/9' : '6'
    said('6')
    if (has('9')) said('9')
  } else if (seventh) {
    const thirdless = d.number === '11' && has('11') && !minor && !has('3') && !sus
    const bareEleven = has('11') && ninth && (minor || thirdless)
    if (has('13') && ninth && !thirdless) {
      number = '13'
      said('9', '13')
    } else if (bareEleven) {
      number = '11'
      said('9', '11')
    } else if (has('9')) {
      number = '9'
      said('9')
    } else number = '7'
    if (sus && has('2')) number = has('13') ? '13' : '7'
  }
  if (number === '11' || number === '13') said('9')

  const diminishedFifth = has('b5') && minor && !has('5', '#5')
  const brackets = (word: string) => `(${word})`
  let head: string
  if (has('bb7')) {
    head = `dim${number}`
    said('b5')
  } else if (diminishedFifth && !seventh && number === '') {
    head = 'dim'
    said('b5')
  } else if (diminishedFifth && has('7')) {
    head = `dim${brackets(`maj${number}`)}`
    said('b5')
  } else if (minor && has('7')) head = `m${brackets(`maj${number}`)}`
  else if (minor) head = `m${number}`
  else if (has('7')) head = `maj${number}`
  else if (has('#5') && !has('b5') && number === '' && !sus && !d.omits.includes('3')) {
    head = 'aug'
    said('#5')
  } else head = number

  const oneSuspended = sus ? `sus${firstOf(suspensions)}` : ''
  const suspension = suspensions.includes('2') && suspensions.includes('4') ? 'sus2sus4' : oneSuspended
  said(...suspensions)

  const altered = (['b5', '#5', 'b9', '#9', '#11', 'b13'] as const).filter((degree) => rest.has(degree))
  const added = (['2', '4', '6', '9', '11', '13'] as const).filter((degree) => rest.has(degree))
  // Directly behind a root (or "m") a bare b5 would be read as part of the root or look like it:
  // bracket it there.
  const alterations = altered.length > 0 && number === '' ? brackets(altered.join(',')) : altered.join('')
  return head + suspension + alterations + added.map((degree) => `add${degree}`).join('') + omits
}
