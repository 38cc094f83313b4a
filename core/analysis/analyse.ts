import { entryOf, firstOf, itemAt } from '../lists'
import { slotKey, type Chart } from '../chart/chart'
import { keyName, scaleNotes, type Key } from '../pitch/key'
import { modulo, noteName, pitchClass } from '../pitch/note'
import { findKey, rankKeys } from './findKey'
import { formPlacesOf, type FormPlace } from './formPlaces'
import { groupsOf } from './groups'
import { idiomOf } from './tuneIdiom'
import { scaleHolding } from './keyFit'
import { localKeys, sameKey } from './localKeys'
import { numeralOf, usualStep, type NumeralSchool } from './numeral'
import { placesOf, played, type Place, type Sounding } from './chordPlaces'
import type { Analysis, Reading, Region } from './chordReading'
import { findingsOf, isInside, type Finding, type Manner } from './functionRules'
import { chordScale, whyScale } from './scales'

/** A home key is shown as a rival when it has at least this share of the evidence. */
const RIVAL_SHARE = 0.02
const RIVALS = 3

/**
 * Reads a chart: its home key, the keys it moves through, a numeral, a function and a reason for
 * each chord, and the groups they make. Chords are read as they are played: behind a first ending
 * comes the beginning of the repeat. The rules are those by which players read a progression
 * (common practice).
 */
export function analyse(chart: Chart, school: NumeralSchool = 'case'): Analysis {
  const sounding = played(chart)
  const guesses = chart.key ? [] : rankKeys(sounding)
  const home = chart.key ?? firstOf(guesses).key
  const keys = localKeys(sounding, home, keysWritten(chart, sounding))
  const places = placesOf(sounding, keys)
  const inForm = formPlacesOf(places, chart, home)
  const manner: Manner = { school, blues: isBlues(places), mixolydian: isMixolydian(places) }

  const readings = new Map<string, Reading>()
  const first = places.filter((place, at) => {
    const key = slotKey(place.slot)
    if (readings.has(key)) return false
    readings.set(key, readPlace(place, itemAt(inForm, at), home, chart.key !== null, manner))
    return true
  })
  const groups = groupsOf(places, chart)
  const written = first.sort((a, b) => a.slot.bar - b.slot.bar || a.slot.beat - b.slot.beat)
  return {
    key: home,
    keyGuessed: chart.key === null,
    confidence: chart.key ? 1 : firstOf(guesses).confidence,
    otherKeys: guesses.slice(1, 1 + RIVALS).filter((guess) => guess.confidence >= RIVAL_SHARE),
    regions: regionsOf(written),
    readings: written.map((place) => entryOf(readings, slotKey(place.slot))),
    groups,
    idiom: idiomOf(chart, places, groups, home),
  }
}

/** The home key of a chart, given or found, without reading its chords. */
export const homeKey = (chart: Chart): Key => chart.key ?? findKey(played(chart)).key

/** The key the chart names in front of each chord's bar, behind the one it begins with. */
function keysWritten(chart: Chart, sounding: readonly Sounding[]): (Key | null)[] {
  let named: Key | null = null
  const byBar = new Map(
    chart.bars.map((bar) => {
      named = bar.newKey ?? named
      return [bar.number, named]
    }),
  )
  return sounding.map((one) => byBar.get(one.slot.bar) ?? null)
}

/**
 * I and IV are both sevenths, or the tune begins and stays on a I7: the flat seventh belongs to the
 * style and does not push.
 */
function isBlues(places: readonly Place[]): boolean {
  const sevenths = (rel: number) =>
    places.filter((place) => place.rel === rel && place.kind === 'dominant' && place.key.mode === 'major')
      .length
  const tonics = places.filter((place) => place.rel === 0).length
  return sevenths(0) * 2 > tonics && sevenths(5) > 0
}

/**
 * A major chord on bVII, and the leading note nowhere, nor a V. A bVII7 has the flat sixth too,
 * which the mode has not: it comes home by the back door.
 */
function isMixolydian(places: readonly Place[]): boolean {
  const major = places.filter(({ key }) => key.mode === 'major')
  const leading = ({ sounds, key }: Place) => (sounds >> modulo(pitchClass(key.tonic) - 1, 12)) & 1
  return (
    major.some(({ rel, kind }) => rel === 10 && kind === 'major') &&
    major.some(({ rel }) => rel === 0) &&
    !major.some((place) => leading(place) || (place.rel === 7 && place.kind !== 'minor'))
  )
}

function regionsOf(places: readonly Place[]): Region[] {
  const regions: Region[] = []
  for (const { key, slot } of places) {
    const last = regions.at(-1)
    const at = { bar: slot.bar, beat: slot.beat }
    if (last && sameKey(last.key, key)) last.to = at
    else regions.push({ key, from: at, to: at })
  }
  return regions
}

function readPlace(place: Place, inForm: FormPlace, home: Key, given: boolean, manner: Manner): Reading {
  const { chord, key } = place
  const rises = place.next !== null && modulo(place.next.root - place.root, 12) === 1
  const plain = numeralOf(chord, key, manner.school, rises)
  const [first, ...others] = findingsOf(place, manner)
  const { roman = plain, key: local = key, function: job, role, reason } = first
  const fromHome = sameKey(key, home)
    ? []
    : [{ roman: numeralOf(chord, home, manner.school), reason: `Counted from home, ${keyName(home)}.` }]
  return {
    slot: place.slot,
    roman,
    key: local,
    diatonic: isInside(place, key),
    function: job,
    role,
    reason,
    place: inForm.place,
    placeReason: inForm.reason,
    // Worked out when they are asked for: mostly for one chord of the tune.
    get scale() {
      return chordScale(chord, role)
    },
    get why() {
      return {
        roman: whyRoman(place, first, roman),
        key: whyKey(place, local, home, given),
        diatonic: whyInside(place),
        scale: whyScale(chord, role, chordScale(chord, role)),
      }
    },
    alternatives: [
      ...others.map((other) => ({ roman: other.roman ?? plain, reason: other.reason })),
      ...fromHome,
    ].filter(
      (other, at, all) => other.roman !== roman && all.findIndex((same) => same.roman === other.roman) === at,
    ),
  }
}

function whyRoman({ chord, key }: Place, finding: Finding, roman: string): string {
  const root = noteName(chord.root)
  const [job, goal] = roman.split(/\/(?=[b#]*[iIvV]+$)/)
  if (finding.roman && goal && finding.key)
    return `${root} is the ${stepOf(job!)} of ${keyName(finding.key)}, and ${noteName(finding.key.tonic)} is the ${goal} of ${keyName(key)}.`
  return `${root} is the ${usualStep(chord, key)} counted on the major scale of ${noteName(key.tonic)}; the rest of the numeral says the quality of ${chord.canonical}.`
}

const stepOf = (roman: string): string =>
  /^[b#]*[iIvV]+/
    .exec(roman)?.[0]
    .toUpperCase()
    .replace(/B(?=[IV])/g, 'b') ?? roman

function whyKey(place: Place, local: Key, home: Key, given: boolean): string {
  if (!sameKey(local, place.key))
    return `${place.chord.canonical} points at ${keyName(local)}, whether that comes or not.`
  if (!sameKey(local, home))
    return `The chords around it fit ${keyName(local)} so much better than ${keyName(home)} that the tune has moved there, and its own I sounds.`
  return given
    ? `${keyName(home)} is the key of the chart.`
    : `${keyName(home)} explains more of the chords than any other key.`
}

function whyInside(place: Place): string {
  const { chord, key } = place
  const scale = scaleHolding(place.sounds, key)
  if (scale)
    return `All tones of ${chord.canonical} are in the ${scale}${scale === 'major' ? ' scale' : ''} of ${noteName(key.tonic)}.`
  const inside = new Set(scaleNotes(key).map(pitchClass))
  const outside = chord.tones
    .filter((tone) => !inside.has(pitchClass(tone.note)))
    .map((tone) => noteName(tone.note))
  return `${outside.join(' and ')} ${outside.length === 1 ? 'is' : 'are'} not in ${keyName(key)}.`
}
