import { firstOf, itemAt } from '../lists'
import { coloursFor, readingsOf, takesColour } from './colours'
import type { ChordSymbol } from '../chord/symbol'
import { bad, good, type Result } from '../result'
import { drones, type Drone, type StyleChoice } from './drones'
import { differentLines } from './different'
import { bestLines, STOPPED } from './lead'
import { type LeadProblem } from './lineProblem'
import { layersOf } from './layers'
import { type Line } from './line'
import type { Limits } from '../voicing/gripLimits'
import { nearnessOf, textureLimits, textureOf } from './texture'
import { usualTextures } from './usualTextures'
import { replacesTable, STYLES, weightsFrom, type StyleName, type Weights } from './weights'
import type { Role } from '../analysis/role'
import type { TextureName } from './textureNames'

export interface StyledProblem extends Omit<LeadProblem, 'weights' | 'colours' | 'inversions'> {
  style: StyleName
  /** The player's own weights over those of the style. */
  weights?: Partial<Weights>
  /**
   * Chords may take the free tensions of their role; where nothing is said, in the styles and
   * textures that live on them.
   */
  colour?: boolean
  /** What each chord does where it stands; read from the chords themselves where it is not said. */
  roles?: readonly Role[]
  /**
   * The tune before it was coloured, where that is known: what is strummed stays strummed when
   * sevenths come.
   */
  home?: readonly ChordSymbol[]
  /** Position: the frets the hand stays in; the best five are looked for where none are given. */
  window?: readonly [number, number] | null
  /**
   * Drone: the string that rings open, by index, or the pitch that is held; the best is looked for
   * where none is given.
   */
  drone?: Drone | null
  /** Lines unlike one another, instead of the exact best ones. */
  different?: boolean
}

/** Lines in a style, and what was decided on the way. */
export interface StyledLines {
  lines: Line[]
  /** The kind of grip of the first line. */
  texture: TextureName
  /** Where a chord has no grip of the kind, where a drone rests, and the like. */
  says: string[]
}

/** Frets of one position: one for each finger and one to stretch to. */
const POSITION = 5
/** A texture is a tune's own when so many of its chords have it. */
const HAVE_IT = 0.6

const NO_CHOICE: StyleChoice = { name: '', constraints: [], says: [] }

/**
 * A style made into a problem of the search, with the textures and the places that it may be played
 * in.
 */
function problemOf(styled: StyledProblem): {
  problem: LeadProblem
  textures: TextureName[]
  choices: StyleChoice[]
} {
  const {
    style,
    weights,
    window = null,
    drone = null,
    different: _different,
    colour,
    roles: given,
    texture,
    home = styled.chords,
    ...rest
  } = styled
  const named = STYLES[style]
  const own = named.within ? named.within(rest.limits) : rest.limits
  // A position that is asked for lies where it was asked for, also beyond the frets that lines are
  // otherwise looked for in.
  const limits =
    style === 'position' && window
      ? { ...own, frets: [own.frets[0], Math.max(own.frets[1], window[1])] as const }
      : own
  const plain = weights !== undefined && replacesTable(weights)
  const free =
    plain ||
    style === 'drone' ||
    limits.families !== null ||
    limits.top !== null ||
    limits.strings !== null ||
    (rest.contour ?? null) !== null ||
    (rest.constraints ?? []).some(({ kind }) => kind === 'top')
  const ofStyle = free ? undefined : named.texture?.(limits)
  const set = texture ?? ofStyle ?? (free ? ('as it comes' as const) : null)
  const wanted = set ? [set] : texturesFor(rest.chords, home, limits)
  const coloured =
    colour ?? (!plain && (named.coloured === true || textureOf(firstOf(wanted), limits).coloured === true))
  const roles = coloured || style === 'drone' ? (given ?? rolesOf(rest.chords)) : []
  // A colour that is written is the colour, and a triad stays one, but in a style that looks for
  // more.
  const more = named.coloured === true || colour === true
  const colours = coloured
    ? rest.chords.map((chord, at) => (more || takesColour(chord) ? coloursFor(chord, roles[at]) : [chord]))
    : undefined
  const problem: LeadProblem = {
    ...rest,
    limits,
    weights: weightsFrom(style, weights, limits.bass),
    ...(colours ? { colours } : {}),
    ...(named.inversions ? { inversions: true } : {}),
    ...(free ? {} : { usual: true }),
  }
  const textures = texture || ofStyle || wanted.length === 1 ? wanted : usable(problem, wanted)
  const choices = () => {
    if (style === 'position') return positions(problem, window)
    return style === 'drone' ? drones(problem, roles, drone) : [NO_CHOICE]
  }
  return { problem, textures, choices: choices() }
}

/**
 * The textures of a chart; of a song that was coloured those of the song first, as far as its
 * chords have them.
 */
function texturesFor(
  chords: readonly ChordSymbol[],
  home: readonly ChordSymbol[],
  limits: Limits,
): TextureName[] {
  const [first] = usualTextures(home, limits)
  const own = usualTextures(chords, limits)
  return first === 'open' && own[0] !== 'open' ? ['open', ...own] : own
}

const rolesOf = (chords: readonly ChordSymbol[]): Role[] =>
  readingsOf(chords)
    .filter(({ slot }) => slot.symbol?.kind === 'chord')
    .map(({ role }) => role)

/**
 * Of the usual textures those that most chords have within the limits; any grip where there is
 * none.
 */
function usable(problem: LeadProblem, textures: readonly TextureName[]): TextureName[] {
  const { chords, limits } = problem
  const different = [
    ...new Map(
      chords.map((chord, at) => [`${chord.canonical} ${(problem.colours?.[at] ?? []).length}`, at]),
    ).values(),
  ]
  const isUsable = (texture: TextureName): boolean => {
    const own = textureLimits(texture, limits)
    if (own.notes[0] > own.notes[1]) return false
    const layers = layersOf({
      ...problem,
      texture,
      chords: different.map((at) => itemAt(chords, at)),
      ...(problem.colours ? { colours: different.map((at) => itemAt(problem.colours!, at)) } : {}),
      fixed: new Map(),
      constraints: [],
      contour: null,
    })
    if (!layers.ok) return false
    // Grips of one chord are all as near to the texture as the first.
    const nearness = layers.value.map(
      ({ voicings, chords: as, chord }) =>
        nearnessOf(texture, firstOf(voicings), as?.[0] ?? chord, own) ?? Infinity,
    )
    const { belongs = 0 } = textureOf(texture, limits)
    const have = nearness.filter((near) => near <= belongs).length
    // Strummed chords ring where some of them can.
    return have >= HAVE_IT * different.length && (texture !== 'open' || nearness.includes(0))
  }
  // For one line the first is enough.
  const having = problem.count === 1 ? [textures.find(isUsable) ?? []].flat() : textures.filter(isUsable)
  return having.length > 0 ? having : ['as it comes']
}

const withChoice = (problem: LeadProblem, { constraints, colours }: StyleChoice): LeadProblem =>
  constraints.length > 0
    ? {
        ...problem,
        constraints: [...(problem.constraints ?? []), ...constraints],
        ...(colours && !problem.colours ? { colours } : {}),
      }
    : problem

/**
 * The problem where nothing but the grips is open: null where several places have to be compared,
 * or the line leads back to its beginning.
 */
export function singleProblem(styled: StyledProblem): LeadProblem | null {
  const { problem, choices, textures } = problemOf(styled)
  return choices.length === 1 && !problem.loop
    ? { ...withChoice(problem, firstOf(choices)), texture: firstOf(textures) }
    : null
}

/**
 * Lines in a style: its weights, what its grips keep to, and for one position or a drone the best
 * place for it.
 */
export function leadInStyle(styled: StyledProblem): Result<Line[]> {
  const found = styledLines(styled)
  return found.ok ? good(found.value.lines) : found
}

/** The same, with the texture that was taken and what has to be said. */
export function styledLines(styled: StyledProblem): Result<StyledLines> {
  const { problem, textures, choices } = problemOf(styled)
  const lead = (one: LeadProblem): Result<Line[]> =>
    styled.different
      ? differentLines(one, textures, styled.texture !== undefined)
      : bestLines({ ...one, texture: firstOf(textures) })
  const answer = (lines: Result<Line[]>, choice: StyleChoice): Result<StyledLines> =>
    lines.ok
      ? good({
          lines: lines.value,
          texture: lines.value[0]?.texture ?? firstOf(textures),
          says: [
            ...choice.says,
            ...standIns(problem, lines.value[0]?.texture ?? firstOf(textures), lines.value[0]),
          ],
        })
      : lines
  if (choices.length === 1) return answer(lead(withChoice(problem, firstOf(choices))), firstOf(choices))

  // Several places are possible: the best line of each is compared, and the lines of the best place
  // are given.
  let best: { choice: StyleChoice; cost: number } | null = null
  let fault: Result<never> | null = null
  const stuck: string[] = []
  for (const [at, choice] of choices.entries()) {
    if (problem.onProgress && !problem.onProgress(at, choices.length + 1))
      return { ok: false, fault: { code: STOPPED, message: 'The search was stopped.' } }
    const found = bestLines({ ...withChoice(problem, choice), texture: firstOf(textures), count: 1 })
    if (!found.ok) {
      fault ??= found
      const chord = problem.chords[found.fault.at ?? -1]
      if (chord) stuck.push(`${choice.name} with ${chord.canonical}, chord ${found.fault.at! + 1}`)
    } else if (found.value[0] && (!best || found.value[0].cost < best.cost))
      best = { choice, cost: found.value[0].cost }
  }
  if (best) return answer(lead(withChoice(problem, best.choice)), best.choice)
  return styled.style === 'drone'
    ? bad({
        code: 'no-drone',
        message:
          stuck.length > 0
            ? `No drone can be held through these chords: the hand finds no grip for ${stuck.join('; ')}.`
            : 'No open string and no held note goes with any of these chords.',
        accepted:
          'wider limits, chords changed under "Held note, bass line" on the Colour step, or another style',
        text: 'style',
      })
    : (fault ?? good({ lines: [], texture: firstOf(textures), says: [] }))
}

/** Chords of a line whose grips only stand in for the texture. */
function standIns(
  { chords, limits, fixed }: LeadProblem,
  texture: TextureName,
  line: Line | undefined,
): string[] {
  if (!line || texture === 'as it comes') return []
  const within = textureLimits(texture, limits)
  const others = line.voicings.flatMap((voicing, at) =>
    !fixed?.has(at) &&
    (nearnessOf(texture, voicing, itemAt(line.chords, at), within) ?? Infinity) >
      (textureOf(texture, limits).belongs ?? 0)
      ? [itemAt(chords, at).canonical]
      : [],
  )
  const names = [...new Set(others)]
  return names.length > 0
    ? [
        `No grip of ${names.join(', ')} belongs to the texture "${texture}" within the limits: the nearest stands there.`,
      ]
    : []
}

function positions({ chords, limits }: LeadProblem, window: readonly [number, number] | null): StyleChoice[] {
  const frets = (low: number, high: number): StyleChoice => ({
    name: `frets ${low} to ${high}`,
    constraints: [{ kind: 'frets', from: 0, to: chords.length - 1, low, high }],
    says: [],
  })
  if (window) return [frets(...window)]
  const lowest = Math.max(1, limits.frets[0], limits.instrument.capo + 1)
  const last = Math.max(lowest, limits.frets[1] - POSITION + 1)
  return Array.from({ length: last - lowest + 1 }, (_, at) => frets(lowest + at, lowest + at + POSITION - 1))
}

/**
 * Styles whose first line is expected to be another than that of `smooth`, with why it may be the
 * same.
 */
const UNLIKE_SMOOTH: Partial<Record<StyleName, string>> = {
  contrary: 'bass and top already move against each other wherever a grip allows it',
  tension: 'no chord here has a free tension that a grip within the limits could sound',
  bass: 'the bass already goes by step wherever a grip allows it',
  top: 'the highest voice already goes by step',
  position: 'the hand already stays within five frets',
}

/** Why the first line of a style is that of `smooth`, where it is; null where they differ. */
export function whyLikeSmooth(styled: StyledProblem, first: Line): string | null {
  const why = UNLIKE_SMOOTH[styled.style]
  if (!why || styled.weights) return null
  const { window: _window, drone: _drone, ...rest } = styled
  const smooth = leadInStyle({ ...rest, style: 'smooth', count: 1, different: false })
  const same =
    smooth.ok &&
    smooth.value[0] &&
    smooth.value[0].voicings.every(
      ({ frets }, at) => frets.join() === itemAt(first.voicings, at).frets.join(),
    )
  return same ? `The same line as in "smooth": ${why}.` : null
}
