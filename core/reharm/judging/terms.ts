import { availableTensions } from '../../analysis/tensions'
import { hasDegree, type ChordSymbol } from '../../chord/symbol'
import { semitonesOf, type Degree } from '../../pitch/degree'
import { noteName, pitchClass } from '../../pitch/note'
import { scaleNotes } from '../../pitch/key'
import { firstAt } from '../atPlace'
import { tonesOutside } from '../distance'
import { barStarts, heardOver } from '../melodyFit'
import type { Spot } from '../spot'
import { apart, up, type Aligned, type Sounded } from './aligned'

/** Something a version does, at a place, with how much of it. */
export interface Found {
  bar: number
  beat: number
  amount: number
  /** What is heard there, in a few words with the chords. */
  what: string
}

/** One thing that is looked for in a version. */
export interface JudgedTerm {
  name: string
  /** Why players avoid it, or look for it. */
  why: string
  /** It is counted for eight bars: a long tune has more of it without being better. */
  isPerPhrase?: true
  /** It is heard in the chord and its neighbours alone. */
  isLocal?: true
  find: (version: Aligned) => Found[]
}

const at = (one: Sounded, what: string, amount = 1): Found => ({ bar: one.bar, beat: one.beat, amount, what })
const name = ({ chord }: { chord: ChordSymbol }) => chord.canonical
const isDominant = ({ chord }: { chord: ChordSymbol }) => hasDegree(chord, 'b7') && hasDegree(chord, '3')
const isSus = ({ chord }: { chord: ChordSymbol }) =>
  hasDegree(chord, '4', '2', '11') && !hasDegree(chord, '3', 'b3')
const ALTERED: readonly Degree[] = ['b9', '#9', 'b13', '#5', 'b5', '#11']
const isAltered = (one: { chord: ChordSymbol }) => isDominant(one) && hasDegree(one.chord, ...ALTERED)
const songs = ({ idiom }: Aligned) => idiom === 'song' || idiom === 'gospel'
const isBlues = ({ idiom }: Aligned) => idiom === 'blues' || idiom === 'minor blues'
const degreeIn = (spot: Spot, root: number) => up(pitchClass(spot.key.tonic), root)
const changed = (version: Aligned) => version.sounded.filter((one) => one.plain && !one.isPlain)
const resolvesTo = (one: Sounded, next: Sounded | null) =>
  next !== null && [5, 11].includes(up(one.root, next.root))
/** Where the tune goes on, the form beginning again behind its end. */
const onwards = (one: Sounded, { top }: Aligned) => one.next ?? top

/** Sounds of the plain tune. */
const soundsOf = ({ plain }: Aligned): ReadonlySet<number> => {
  const known = SOUNDS.get(plain)
  if (known) return known
  const made = new Set(plain.flatMap(({ chord }) => chord.tones.map(({ note }) => pitchClass(note))))
  SOUNDS.set(plain, made)
  return made
}
const SOUNDS = new WeakMap<Aligned['plain'], ReadonlySet<number>>()

/** The tune has no leading note, and its home is minor, or it is a mode. */
function keepsItsMode(version: Aligned): boolean {
  const { key } = version.analysis
  const leading = up(1, pitchClass(key.tonic))
  return version.plain.length > 2 && !soundsOf(version).has(leading)
}

/** The voice that moves inside a standing chord: 8 7 b7 6, or 5 #5 6, in half steps above the root. */
function lineTone({ chord }: Sounded): number | null {
  if (hasDegree(chord, '7')) return 11
  if (hasDegree(chord, 'b7')) return 10
  if (hasDegree(chord, '6', '13')) return 9
  if (hasDegree(chord, '#5', 'b13')) return 8
  return chord.tones.length === 3 ? 12 : null
}

const sectionsOf = ({ chart }: Aligned): { from: number; to: number }[] => {
  const starts = chart.bars.flatMap((bar, index) => (index === 0 || bar.opensSection ? [index] : []))
  return starts.map((from, index) => ({ from, to: (starts[index + 1] ?? chart.bars.length) - 1 }))
}

/** The last place of a plain chord: its first chord of the new version. */
const headOf = (version: Aligned, spot: Spot) => version.over(spot).find(({ begins }) => begins) ?? null

/** Everything a version is judged by. Common practice, no source. */
export const TERMS: readonly JudgedTerm[] = [
  {
    name: 'home lost',
    why: 'The first and the last chord say where the tune is at home.',
    find: (version) => {
      const [first, last] = [version.sounded[0], version.sounded.at(-1)]
      const [begin, end] = [version.plain[0], version.plain.at(-1)]
      const lastStart = version.sounded.filter(({ plain }) => plain === end)
      const isTurning =
        version.plain.at(-1)!.rel === 7 || version.plain[0]!.rel !== 0 || end!.place === 'turnaround'
      return [
        ...(first && begin && first.root !== pitchClass(begin.chord.root)
          ? [at(first, `${name(first)} opens for ${name(begin)}`)]
          : []),
        ...(last && end && !isTurning && !lastStart.some((one) => one.root === pitchClass(end.chord.root))
          ? [at(last, `${name(last)} closes for ${name(end)}`)]
          : []),
        ...(last && end && !isTurning && last.root !== pitchClass(end.chord.root) && isDominant(last)
          ? [at(last, `${name(last)} leaves the end open`, 0.5)]
          : []),
      ]
    },
  },
  {
    name: 'arrival missed',
    isLocal: true,
    why: 'Where a section begins or ends, the tune arrives; another chord there, or a late one, hides the form.',
    find: (version) =>
      version.plain
        .filter((spot) => spot.place === 'arrival' && spot !== version.plain[0])
        .flatMap((spot) => {
          const head = headOf(version, spot)
          const standsIn =
            head &&
            spot.rel === 0 &&
            degreeIn(spot, head.root) === 4 &&
            hasDegree(head.chord, 'b3') &&
            spot !== version.plain.at(-1)
          return head &&
            head.root !== pitchClass(spot.chord.root) &&
            !(head.chord.bass && head.bass === pitchClass(spot.chord.root))
            ? [at(head, `${name(head)} stands where ${name(spot)} arrives`, standsIn ? 0.4 : 1)]
            : []
        }),
  },
  {
    name: 'cadence weakened',
    isLocal: true,
    why: 'The V of a cadence, its substitute or its sound over the bass of V brings the arrival home.',
    find: (version) =>
      version.plain
        .filter(
          (spot) =>
            spot.rel === 7 &&
            ['dominant', 'major', 'suspended'].includes(spot.kind) &&
            (spot.place === 'cadence' || spot.rootRise === 5),
        )
        .flatMap((spot) => {
          const chords = version.over(spot)
          const five = pitchClass(spot.chord.root)
          const kept = chords.some(
            (one) =>
              (one.root === five && !hasDegree(one.chord, 'b3') && !hasDegree(one.chord, '7')) ||
              one.bass === five ||
              (isDominant(one) && up(one.root, five) === 6) ||
              (hasDegree(one.chord, 'bb7') && [4, 7, 10, 1].includes(up(five, one.root))),
          )
          const [head] = chords
          return head && !kept ? [at(head, `${name(head)} takes the V away`)] : []
        }),
  },
  {
    name: 'V made soft',
    isLocal: true,
    why: 'V keeps its third and its flat seventh; a minor or a major-seventh chord there does not push.',
    find: (version) =>
      changed(version).flatMap((one) =>
        one.plain!.rel === 7 &&
        !one.moved &&
        ['dominant', 'major', 'suspended'].includes(one.plain!.kind) &&
        (hasDegree(one.chord, '7') || hasDegree(one.chord, 'b3'))
          ? [at(one, `${name(one)} on the V`)]
          : [],
      ),
  },
  {
    name: 'no bIImaj7 for triads',
    isLocal: true,
    why: 'A major seventh a half step above its goal stands for no V: its guide tones are others.',
    find: (version) =>
      changed(version).flatMap((one) =>
        one.moved &&
        hasDegree(one.chord, '7') &&
        !hasDegree(one.chord, 'b3') &&
        degreeIn(one.plain!, one.root) === 1 &&
        !version.plain.some((spot) => pitchClass(spot.chord.root) === one.root)
          ? [at(one, name(one))]
          : [],
      ),
  },
  {
    name: 'resolution missing',
    isLocal: true,
    why: 'A dominant that was put in is paid back by the chord it points at.',
    find: (version) =>
      changed(version).flatMap((one) => {
        const next = onwards(one, version)
        const atRest =
          one.plain &&
          !one.moved &&
          (['dominant at rest', 'home dominant at rest', 'blues I into IV', 'Mixolydian tonic'].includes(
            one.plain.role,
          ) ||
            one.plain.kind === 'dominant')
        if (!isDominant(one) || atRest || !next) return []
        if (resolvesTo(one, next) || next.root === one.root) return []
        // Its ii or its substitute comes between; home from behind; the same guide tones.
        const beyond = onwards(next, version)
        const between =
          beyond !== null &&
          (resolvesTo(one, beyond) || beyond.root === one.root) &&
          next.beats <= one.barBeats
        const backdoor =
          one.plain && degreeIn(one.plain, one.root) === 10 && [0, 4].includes(degreeIn(one.plain, next.root))
        const deceptive = up(one.root, next.root) === 2 || up(one.root, next.root) === 1
        const bluesFour =
          one.plain && degreeIn(one.plain, one.root) === 5 && degreeIn(one.plain, next.root) === 0
        if (between || backdoor || bluesFour || up(one.root, next.root) === 6) return []
        return [at(one, `${name(one)} does not go where it points`, deceptive ? 0.5 : 1)]
      }),
  },
  {
    name: 'ii with its V',
    isLocal: true,
    why: 'A ii that was put in asks for its V.',
    find: (version) =>
      changed(version).flatMap((one) => {
        const next = onwards(one, version)
        if (
          !one.moved ||
          !next ||
          !hasDegree(one.chord, 'b3') ||
          !hasDegree(one.chord, 'b7') ||
          one.chord.bass
        )
          return []
        const inside = tonesOutside(one.chord, one.plain!.key) === 0
        const goes =
          [5, 11, 10, 1].includes(up(one.root, next.root)) || next.root === one.root || resolvesTo(one, next)
        return inside || goes ? [] : [at(one, `${name(one)} leads nowhere`)]
      }),
  },
  {
    name: 'stray chord',
    isLocal: true,
    why: 'A chord from outside the key needs a reason: a goal, a line, a loan.',
    find: (version) =>
      changed(version).flatMap((one) => {
        const spot = one.plain!
        const out = tonesOutside(one.chord, spot.key)
        if (!one.moved || out === 0) return []
        const next = onwards(one, version)
        const { previous } = one
        const step = degreeIn(spot, one.root)
        const minor = hasDegree(one.chord, 'b3')
        const major = spot.key.mode === 'major'
        if (
          isDominant(one) &&
          next &&
          (resolvesTo(one, next) || (step === 10 && degreeIn(spot, next.root) === 0))
        )
          return []
        if (
          major &&
          ((step === 5 && minor) ||
            (step === 10 && !minor) ||
            (step === 8 && !minor) ||
            (step === 3 && !minor) ||
            (step === 2 && hasDegree(one.chord, 'b5')))
        )
          return [at(one, `${name(one)} is borrowed`, 0.25)]
        if (hasDegree(one.chord, 'b3') && next && up(one.root, next.root) === 5 && isDominant(next)) return []
        if (next && minor && apart(one.root, next.root) === 1 && hasDegree(next.chord, 'b3'))
          return [at(one, `${name(one)} slides`, 0.3)]
        if (hasDegree(one.chord, 'bb7') || (minor && hasDegree(one.chord, 'b5'))) return []
        if (previous && next && apart(one.bass, next.bass) <= 2 && apart(one.bass, previous.bass) <= 2)
          return [at(one, `${name(one)} is on a line`, 0.5)]
        return [at(one, `${name(one)} comes from nowhere`, Math.min(2, out / 2))]
      }),
  },
  {
    name: 'passing diminished steps',
    isLocal: true,
    why: 'A diminished chord fills the half step between two basses, or leads up by one.',
    find: (version) =>
      changed(version).flatMap((one) => {
        const next = onwards(one, version)
        if (one.kind !== 'diminished' || one.plain?.kind === 'diminished' || !next) return []
        const leads =
          up(one.bass, next.bass) === 1 ||
          up(one.bass, next.bass) === 11 ||
          up(one.root, next.root) === 1 ||
          next.root === one.root ||
          (one.previous !== null && one.previous.root === next.root && one.previous.root === one.root)
        return leads ? [] : [at(one, `${name(one)} does not step into ${name(next)}`)]
      }),
  },
  {
    name: 'colour of the degree',
    isLocal: true,
    why: 'An added tone comes from the scale of its place.',
    find: (version) =>
      changed(version).flatMap((one) => {
        const spot = one.plain!
        // Made a dominant that goes on, it takes the tones of one.
        const pushes =
          isDominant(one) && !hasDegree(spot.chord, 'b7') && resolvesTo(one, onwards(one, version))
        if (one.moved || (pushes && spot.rel !== 7)) return []
        const { free, special } = availableTensions(spot.chord, spot.role)
        const own = new Set(spot.chord.tones.map(({ degree }) => semitonesOf(degree) % 12))
        const sounds = (list: readonly Degree[]) => new Set(list.map((degree) => semitonesOf(degree) % 12))
        const [isFree, isSpecial] = [sounds(free), sounds(special)]
        return one.chord.tones
          .filter(
            ({ degree }) =>
              !['1', '3', 'b3', '5', '4', '2'].includes(degree) && !own.has(semitonesOf(degree) % 12),
          )
          .flatMap(({ degree, need }) => {
            const sound = semitonesOf(degree) % 12
            if (need === 'free' || isFree.has(sound)) return []
            // The flat seventh of a triad in its place.
            if (
              degree === 'b7' &&
              (isDominant(one)
                ? [
                    'dominant to major',
                    'dominant to minor',
                    'home dominant at rest',
                    'dominant at rest',
                    'blues I into IV',
                    'Mixolydian tonic',
                  ].includes(spot.role) ||
                  (one.next !== null && resolvesTo(one, one.next))
                : hasDegree(one.chord, 'b3'))
            )
              return []
            if (degree === 'b7' && isSus(one))
              return spot.rel === 7 || spot.rootRise === 5 ? [] : [at(one, `b7 on ${name(one)}`)]
            if (isSpecial.has(sound))
              return [at(one, `${degree} on ${name(one)}`, songs(version) ? 0.6 : 0.1)]
            return [at(one, `${degree} on ${name(one)}`)]
          })
      }),
  },
  {
    name: 'bright flips',
    isLocal: true,
    why: 'Home and V keep their third.',
    find: (version) =>
      changed(version).flatMap((one) => {
        const spot = one.plain!
        if (one.moved) return []
        const turned =
          (hasDegree(spot.chord, '3') && hasDegree(one.chord, 'b3') && !hasDegree(one.chord, '3')) ||
          (hasDegree(spot.chord, 'b3') && hasDegree(one.chord, '3') && !hasDegree(one.chord, 'b3'))
        if (!turned) return []
        const isHome = spot.rel === 0
        const borrowedFour = spot.rel === 5 && hasDegree(one.chord, 'b3') && !one.begins
        const brighter =
          hasDegree(one.chord, '3') &&
          one.next !== null &&
          (resolvesTo(one, one.next) || [5, 7].includes(up(one.root, one.next.root)))
        const related = hasDegree(one.chord, 'b3') && one.next !== null && up(one.root, one.next.root) === 5
        if (borrowedFour || (related && !isHome)) return []
        const plain = brighter ? 0.1 : 1
        return [at(one, `${name(one)} for ${name(spot)}`, isHome && hasDegree(one.chord, 'b3') ? 2 : plain)]
      }),
  },
  {
    name: 'idiom',
    isLocal: true,
    why: 'Each style has its own colours and its own ways; another style among them is heard at once.',
    find: (version) =>
      changed(version).flatMap((one) => {
        const spot = one.plain!
        const minorFive = spot.key.mode === 'minor' && spot.rel === 7
        const { chord } = one
        if (songs(version)) {
          if (isDominant(one) && one.moved && one.next && up(one.root, one.next.root) === 11)
            return [at(one, `${name(one)} slides in`)]
          if (isAltered(one) && !minorFive) return [at(one, name(one), version.idiom === 'song' ? 1 : 0.4)]
          if (
            isSus(one) &&
            one.moved &&
            hasDegree(chord, 'b7') &&
            ![7, 2].includes(degreeIn(spot, one.root)) &&
            !chord.bass
          )
            return [at(one, `${name(one)} is planed`)]
          if (hasDegree(chord, '13', '#11') && hasDegree(chord, 'b7', '7')) return [at(one, name(one), 0.7)]
          if (version.idiom === 'song' && hasDegree(chord, '6') && hasDegree(chord, '9'))
            return [at(one, name(one), 0.4)]
          if (
            hasDegree(chord, 'b3') &&
            (hasDegree(chord, '7') || hasDegree(chord, '6')) &&
            ![5, 0].includes(spot.rel)
          )
            return [at(one, name(one), 0.6)]
          if (
            version.idiom === 'song' &&
            spot.rel === 0 &&
            spot.key.mode === 'minor' &&
            hasDegree(chord, '7', '6') &&
            !hasDegree(spot.chord, '7', '6')
          )
            return [at(one, name(one), 0.6)]
        }
        if (isBlues(version) && hasDegree(chord, '7') && !hasDegree(chord, 'b3') && [0, 5].includes(spot.rel))
          return [at(one, `${name(one)} takes the blues out`)]
        if (isBlues(version) && isAltered(one) && spot.rel === 5 && !one.moved)
          return [at(one, `${name(one)} on the IV`)]
        return []
      }),
  },
  {
    name: 'mode kept',
    isLocal: true,
    why: 'A tune without its leading note is in a mode; the V of a key makes another tune of it.',
    find: (version) => {
      if (!keepsItsMode(version)) return []
      const scale = new Set([...soundsOf(version), ...scaleNotes(version.analysis.key).map(pitchClass)])
      const leading = up(1, pitchClass(version.analysis.key.tonic))
      return changed(version).flatMap((one) => {
        const sounds = one.chord.tones.map(({ note }) => pitchClass(note))
        if (sounds.includes(leading) && version.analysis.key.mode === 'minor')
          return [at(one, `${name(one)} has the leading note`)]
        if (sounds.includes(leading) && version.plain.some(({ role }) => role === 'Mixolydian tonic'))
          return [at(one, `${name(one)} has the leading note`)]
        const out = sounds.filter((sound) => !scale.has(sound)).length
        return out > 0 && (version.idiom === 'modal' || version.analysis.key.mode === 'minor')
          ? [at(one, `${name(one)} leaves the mode`, out / 2)]
          : []
      })
    },
  },
  {
    name: 'written bass kept',
    isLocal: true,
    why: 'A bass that is written is part of the tune.',
    find: (version) =>
      version.plain.flatMap((spot) => {
        const head = headOf(version, spot)
        if (!spot.chord.bass || !head || head.bass === pitchClass(spot.chord.bass)) return []
        return [at(head, `${name(head)} for ${name(spot)}`)]
      }),
  },
  {
    name: 'line kept',
    why: 'A bass that walks by step in the chart goes on walking.',
    find: (version) =>
      version.plain.flatMap((spot, index) => {
        const bass = (one: Spot | undefined) => (one ? pitchClass(one.chord.bass ?? one.chord.root) : -1)
        const [before, after] = [version.plain[index - 1], version.plain[index + 1]]
        const head = headOf(version, spot)
        if (!before || !after || !head || head.bass === bass(spot)) return []
        const [a, b] = [up(bass(before), bass(spot)), up(bass(spot), bass(after))]
        const walks =
          ([1, 2].includes(a) && [1, 2].includes(b)) || ([10, 11].includes(a) && [10, 11].includes(b))
        return walks ? [at(head, `${name(head)} breaks the bass`)] : []
      }),
  },
  {
    name: 'movement kept',
    why: 'Where two chords moved, a single one does not stand.',
    find: (version) =>
      version.plain.flatMap((spot, index) => {
        const before = version.plain[index - 1]
        if (!before || pitchClass(before.chord.root) === pitchClass(spot.chord.root)) return []
        const head = headOf(version, spot)
        // A chord that begins before and is held over it.
        if (!head)
          return [{ bar: spot.slot.bar, beat: spot.slot.beat, amount: 1, what: `${name(spot)} is gone` }]
        const { previous } = head
        return previous &&
          previous.root === head.root &&
          previous.bass === head.bass &&
          previous.kind === head.kind &&
          (previous.moved || head.moved) &&
          !(head.isPlain || previous.isPlain)
          ? [at(head, `${name(previous)} stands on as ${name(head)}`)]
          : []
      }),
  },
  {
    name: 'standing minor chord',
    isLocal: true,
    why: 'A chord that lasts is moved from inside; it stays itself.',
    find: (version) =>
      version.sounded.flatMap((one) => {
        const spot = one.plain
        if (!spot || one.isPlain || !one.moved) return []
        const first = version.plain.find((other) => other.index === spot.index - 1)
        const stood = first && name(first) === name(spot)
        if (!stood) return []
        const next = onwards(one, version)
        const goes =
          next !== null &&
          (resolvesTo(one, next) || (hasDegree(one.chord, 'b3') && up(one.root, next.root) === 5))
        const pedal = one.chord.bass !== null && one.bass === pitchClass(spot.chord.root)
        if (pedal || goes) return []
        const minor = hasDegree(spot.chord, 'b3')
        return [
          at(
            one,
            `${name(one)} in the time of ${name(spot)}`,
            minor || spot.rel === 7 || version.idiom === 'modal' ? 1 : 0.3,
          ),
        ]
      }),
  },
  {
    name: 'pedal',
    isLocal: true,
    why: 'A V that lasts keeps its bass while the chords above it move.',
    find: (version) =>
      version.sounded.flatMap((one) => {
        const spot = one.plain
        if (!spot || spot.rel !== 7 || one.isPlain) return []
        const lasts =
          version.plain.filter(
            (other) => name(other) === name(spot) && Math.abs(other.index - spot.index) < 4,
          ).length >= 3
        return lasts && one.bass !== pitchClass(spot.chord.root)
          ? [at(one, `${name(one)} leaves the bass of ${name(spot)}`, 0.6)]
          : []
      }),
  },
  {
    name: 'minor ii-V',
    isLocal: true,
    why: 'In minor the ii is half-diminished, and V takes the flat ninth.',
    find: (version) =>
      changed(version).flatMap((one) => {
        const next = onwards(one, version)
        const spot = one.plain!
        if (
          spot.key.mode !== 'minor' ||
          degreeIn(spot, one.root) !== 2 ||
          !next ||
          degreeIn(spot, next.root) !== 7
        )
          return []
        return hasDegree(one.chord, 'b3') && !hasDegree(one.chord, 'b5')
          ? [at(one, `${name(one)} before ${name(next)}`)]
          : []
      }),
  },
  {
    name: 'surprise anticipated',
    isLocal: true,
    why: 'What surprises once is not used before it comes.',
    find: (version) => {
      const surprise = version.plain.find(
        (spot, index) => index > 1 && spot.place === 'arrival' && tonesOutside(spot.chord, spot.key) > 0,
      )
      const deceived = version.plain.filter(
        (spot, index) =>
          index > 0 && version.plain[index - 1]!.rel === 7 && spot.rel === 9 && spot.place === 'arrival',
      )
      return [surprise, ...deceived].flatMap((spot) =>
        spot
          ? changed(version)
              .filter(
                (one) =>
                  one.moved &&
                  one.plain!.index < spot.index &&
                  one.root === pitchClass(spot.chord.root) &&
                  (tonesOutside(spot.chord, spot.key) > 0
                    ? hasDegree(one.chord, 'b3') === hasDegree(spot.chord, 'b3')
                    : one.plain!.rel === 0),
              )
              .map((one) => at(one, `${name(one)} comes before ${name(spot)} does`))
          : [],
      )
    },
  },
  {
    name: 'blues IV in bar 5',
    isLocal: true,
    why: 'A blues goes to its IV in bar 5, and by V to bar 11.',
    find: (version) => {
      const form = version.analysis.groups.find(({ kind }) => kind === 'blues form')
      if (!form) return []
      return version.plain.flatMap((spot) => {
        const bar = spot.slot.bar - form.from.bar + 1
        const head = headOf(version, spot)
        if (!head || spot.slot.beat !== 1) return []
        if (bar === 5 && spot.rel === 5 && head.root !== pitchClass(spot.chord.root))
          return [at(head, `${name(head)} for the IV of bar 5`, 1.5)]
        if (bar === 10 && spot.rel === 7) {
          const kept = version
            .over(spot)
            .some(
              (one) =>
                one.bass === pitchClass(spot.chord.root) ||
                (isDominant(one) && apart(one.root, pitchClass(spot.chord.root)) === 6) ||
                degreeIn(spot, one.root) === 7,
            )
          return kept ? [] : [at(head, `no V in bar 10`)]
        }
        return []
      })
    },
  },
  {
    name: 'same trick',
    why: 'One idea is carried through a phrase; the same insertion in bar after bar wears out.',
    find: (version) => {
      const tricks = version.plain.map((spot) => {
        const chords = version.over(spot)
        const [, second] = chords
        if (!second || !second.moved) return null
        // Told by how it lies to the chord it is put in beside, or to the next.
        const next = second.next ? up(second.root, second.next.root) : 0
        return { key: `${second.kind} ${next}`, spot, second }
      })
      let run = 0
      return tricks.flatMap((trick, index) => {
        const before = tricks[index - 1]
        run = trick && before?.key === trick.key ? run + 1 : 0
        return trick && run >= 2 ? [at(trick.second, `${name(trick.second)}: the same once more`, 1)] : []
      })
    },
  },
  {
    name: 'density at the phrase end',
    why: 'Phrases end calmer than they go.',
    find: (version) =>
      sectionsOf(version).flatMap(({ from, to }) => {
        const inBar = (bar: number) => version.sounded.filter(({ barIndex }) => barIndex === bar)
        const plainIn = (bar: number) =>
          version.plain.filter(({ slot }) => slot.bar === version.chart.bars[bar]?.number).length
        const last = inBar(to)
        const first = inBar(from)
        const ends = version.plain.find(({ slot }) => slot.bar === version.chart.bars[to]?.number)
        const rests = ends?.place === 'arrival' || ends?.rel === 0
        const more = (chords: readonly Sounded[], bar: number) =>
          chords.filter(({ moved }) => moved).length > 0 ? Math.max(0, chords.length - plainIn(bar)) : 0
        const isLastSection = to === version.bars - 1
        return [
          ...(last[0] && rests && more(last, to) > (isLastSection ? 0 : 1)
            ? [
                at(
                  last[0],
                  `${last.length} chords where the phrase rests`,
                  more(last, to) - (isLastSection ? 0 : 1),
                ),
              ]
            : []),
          ...(first[0] && more(first, from) > 1
            ? [at(first[0], `${first.length} chords where the phrase begins`, more(first, from) - 1)]
            : []),
        ]
      }),
  },
  {
    name: 'back to the top',
    why: 'The last bar leads to the chord on which the form begins.',
    find: (version) => {
      const last = version.sounded.at(-1)
      const top = version.sounded[0]
      const end = version.plain.at(-1)
      if (!last || !top || !end || last.isPlain || !isDominant(last)) return []
      if (end.rel === 0 && version.plain[0]!.rel === 0) return []
      return resolvesTo(last, top) ? [] : [at(last, `${name(last)} does not lead to ${name(top)}`)]
    },
  },
  {
    name: 'strong beats',
    isLocal: true,
    why: 'A change falls where the metre divides: at the half of four and of six, on three of three, on four of five.',
    find: (version) =>
      version.sounded.flatMap((one) => {
        if (one.begins || !one.plain || one.beat === 1) return []
        const good: Readonly<Record<number, readonly number[]>> = {
          2: [2],
          3: [3],
          4: [3, 2, 4],
          5: [4, 3],
          6: [4, 3, 5],
          12: [7, 4, 10],
        }
        const list = good[one.barBeats] ?? [one.barBeats / 2 + 1]
        const order = list.indexOf(one.beat)
        const solo = version.sounded.filter(({ bar }) => bar === one.bar).length === 2
        if (order === 0) return []
        if (order > 0) return solo ? [at(one, `${name(one)} on ${one.beat}`, 0.5)] : []
        return [at(one, `${name(one)} on ${one.beat}`)]
      }),
  },
  {
    name: 'crowded',
    isLocal: true,
    why: 'More than two chords in the place of one hurry.',
    find: (version) =>
      [...new Set(version.sounded.map(({ plain }) => plain))].flatMap((spot) => {
        const chords = spot ? version.over(spot) : []
        const quick = chords.filter(({ beats }) => beats < 2).length
        return chords.length > 2 && quick > 0
          ? [
              at(
                chords[0]!,
                `${chords.length} chords in the time of ${name(spot!)}`,
                (chords.length - 2) * 0.6,
              ),
            ]
          : []
      }),
  },
  {
    name: 'sus before the dominant',
    isLocal: true,
    why: 'The fourth comes first and falls to the third.',
    find: (version) =>
      changed(version).flatMap((one) => {
        const { previous, next } = one
        if (!isSus(one) || !one.plain || one.plain.rel !== 7) return []
        const after = previous && previous.root === one.root && hasDegree(previous.chord, '3')
        const left =
          next &&
          next.root !== one.root &&
          one.begins &&
          next.plain?.place === 'arrival' &&
          next.plain.rel === 0 &&
          one.beats >= one.barBeats &&
          hasDegree(one.plain.chord, 'b7')
        return [
          ...(after ? [at(one, `${name(one)} after ${name(previous)}`)] : []),
          ...(left ? [at(one, `${name(one)} does not fall to its third`, 0.3)] : []),
        ]
      }),
  },
  {
    name: 'melody clash',
    isLocal: true,
    why: 'Every sounding part of every note agrees with the chord under it.',
    find: (version) => {
      if (version.melody.length === 0) return []
      const starts = barStarts(version.chart)
      return version.sounded.flatMap((one) => {
        const next = onwards(one, version)
        const resolves = next !== null && up(one.root, next.root) === 5
        return version.melody.flatMap(({ bar, beat, beats, note }) => {
          const from = starts(bar) + beat - 1
          if (from >= one.from + one.beats - 1e-6 || from + beats <= one.from + 1e-6) return []
          const heard = heardOver(pitchClass(note), one.chord, resolves)
          const plain = one.plain
            ? heardOver(pitchClass(note), one.plain.chord, one.plain.resolving)
            : 'chord tone'
          if (heard === 'sour')
            return [at(one, `${noteName(note)} over ${name(one)}`, plain === 'sour' ? 0.2 : 1)]
          // The natural fifth of V is the b9 of its substitute.
          if (heard === 'avoid' && one.moved && isDominant(one) && up(one.root, pitchClass(note)) === 1)
            return [at(one, `${noteName(note)} is the b9 of ${name(one)}`, 1)]
          if (heard === 'avoid')
            return [at(one, `${noteName(note)} over ${name(one)}`, plain === 'avoid' ? 0.1 : 0.5)]
          return []
        })
      })
    },
  },
  {
    name: 'vary the repeat',
    why: 'A section is stated first; its repeat goes as far or further.',
    find: (version) => {
      const sections = sectionsOf(version)
      const plainOf = ({ from, to }: { from: number; to: number }) =>
        version.plain.filter(({ slot }) => {
          const bar = version.chart.bars.findIndex(({ number }) => number === slot.bar)
          return bar >= from && bar <= to
        })
      const far = (section: { from: number; to: number }) =>
        changed(version).filter(
          ({ barIndex, moved }) => moved && barIndex >= section.from && barIndex <= section.to,
        ).length
      return sections.flatMap((section, index) => {
        const root = (list: readonly Spot[]) => list.slice(0, 4).map(name).join(' ')
        const earlier = sections
          .slice(0, index)
          .find((other) => root(plainOf(other)) === root(plainOf(section)))
        if (!earlier || far(earlier) <= far(section) + 1) return []
        return [
          {
            bar: version.chart.bars[section.from]!.number,
            beat: 1,
            amount: Math.min(2, (far(earlier) - far(section)) / 2),
            what: 'the repeat goes less far than the first time',
          },
        ]
      })
    },
  },
  {
    name: 'bass direction',
    isLocal: true,
    why: 'A bass walks, falls in fifths, or stands.',
    find: (version) =>
      changed(version).flatMap((one) => {
        const next = onwards(one, version)
        if (!next || (!one.moved && one.bass === one.root && !next.moved)) return []
        const by = apart(one.bass, next.bass)
        return [3, 4, 6].includes(by) ? [at(one, `${name(one)} to ${name(next)}`, by === 6 ? 1 : 0.7)] : []
      }),
  },
  {
    name: 'bass that walks',
    why: 'A bass that steps in one direction joins the chords.',
    isPerPhrase: true,
    find: (version) => {
      const { sounded } = version
      return sounded.flatMap((one, index) => {
        const [b, c] = [sounded[index + 1], sounded[index + 2]]
        if (!b || !c || (one.isPlain && b.isPlain && c.isPlain)) return []
        const [x, y] = [up(one.bass, b.bass), up(b.bass, c.bass)]
        const walks =
          ([1, 2].includes(x) && [1, 2].includes(y)) || ([10, 11].includes(x) && [10, 11].includes(y))
        return walks
          ? [
              at(
                one,
                `${noteName(one.chord.bass ?? one.chord.root)} ${noteName(b.chord.bass ?? b.chord.root)} ${noteName(c.chord.bass ?? c.chord.root)}`,
              ),
            ]
          : []
      })
    },
  },
  {
    name: 'moved from inside',
    isLocal: true,
    isPerPhrase: true,
    why: 'A chord that lasts stays itself while a voice or its bass moves.',
    find: (version) =>
      version.sounded.flatMap((one) => {
        const { previous, plain } = one
        if (!previous || !plain || one.isPlain || one.root !== previous.root) return []
        const bass = one.bass !== previous.bass && apart(one.bass, previous.bass) <= 2
        const inner =
          hasDegree(one.chord, '7', 'b7', '6', '#5') &&
          lineTone(one) !== null &&
          Math.abs(lineTone(one)! - (lineTone(previous) ?? 99)) === 1
        return bass || inner ? [at(one, `${name(previous)} ${name(one)}`)] : []
      }),
  },
  {
    name: 'colour laid over all',
    why: 'In a song a colour on every chord, and nothing that moves, softens all and says nothing.',
    find: (version) => {
      if (!songs(version)) return []
      const coloured = changed(version).filter(
        (one) => !one.moved && one.bass === one.root && one.begins && !isSus(one),
      )
      const over = coloured.length / version.plain.length - 0.5
      return over > 0 && coloured[0]
        ? [at(coloured[0], `${coloured.length} of ${version.plain.length} chords are coloured`, over * 4)]
        : []
    },
  },
  {
    name: 'usual here',
    isLocal: true,
    isPerPhrase: true,
    why: 'What players try first at the place.',
    find: (version) => usualIn(version),
  },
  {
    name: 'cadence dressed',
    isLocal: true,
    isPerPhrase: true,
    why: 'What is done at a cadence carries the phrase.',
    find: (version) =>
      changed(version).flatMap((one) =>
        one.plain!.place === 'cadence' ||
        (one.plain!.rel === 7 && one.plain!.rootRise === 5) ||
        (isDominant(one) && resolvesTo(one, onwards(one, version)))
          ? [at(one, name(one))]
          : [],
      ),
  },
  {
    name: 'left bare',
    why: 'A triad among colours sounds forgotten.',
    find: (version) => {
      if (songs(version)) return []
      return version.sounded.flatMap((one) =>
        one.chord.tones.length === 3 && one.isPlain && one.kind !== 'diminished' ? [at(one, name(one))] : [],
      )
    },
  },
  {
    name: 'made plainer',
    isLocal: true,
    why: 'What the chart writes of a chord stays.',
    find: (version) =>
      changed(version).flatMap((one) => {
        const spot = one.plain!
        if (one.moved) return []
        const lost =
          (hasDegree(spot.chord, 'b7') && !hasDegree(one.chord, 'b7')) ||
          ((['b7', '7', '6'] as const).some((degree) => hasDegree(spot.chord, degree)) &&
            !hasDegree(one.chord, 'b7', '7', '6', 'bb7'))
        return lost && spot.kind !== 'minor' ? [at(one, `${name(one)} for ${name(spot)}`)] : []
      }),
  },
]

const soundKey = (chords: readonly ChordSymbol[]) =>
  chords
    .map(
      (chord) =>
        `${pitchClass(chord.bass ?? chord.root)}:${[...new Set(chord.tones.map(({ note }) => pitchClass(note)))].sort((a, b) => a - b).join()}`,
    )
    .join(' ')

function usualIn(version: Aligned): Found[] {
  return version.plain.flatMap((spot) => {
    const chords = version.over(spot)
    if (chords.length === 0 || chords.every(({ isPlain }) => isPlain)) return []
    const key = soundKey(chords.map(({ chord }) => chord))
    const order = firstAt(spot).findIndex(({ puts }) => soundKey(puts.map(({ chord }) => chord)) === key)
    return order >= 0 ? [at(chords[0]!, chords.map(name).join(' '), 1 - order / 20)] : []
  })
}
