import { scaleNotes } from '../../pitch/key'
import { availableTensions } from '../../analysis/tensions'
import { hasDegree, type ChordSymbol } from '../../chord/symbol'
import { semitonesOf, type Degree } from '../../pitch/degree'
import { pitchClass } from '../../pitch/note'
import { tonesOutside } from '../distance'
import { apart, up } from './aligned'
import {
  type JudgedTerm,
  foundAt,
  heardName,
  isDominant,
  isSus,
  isAltered,
  songs,
  isBlues,
  degreeIn,
  changedOf,
  resolvesTo,
  onwards,
  keepsItsMode,
  soundsOf,
} from './heard'

/**
 * What single chords do: whether they belong, go where they point, and take the colours of their
 * place. Common practice, no source.
 */
export const CHORD_TERMS: readonly JudgedTerm[] = [
  {
    name: 'V made soft',
    isLocal: true,
    why: 'V keeps its third and its flat seventh; a minor or a major-seventh chord there does not push.',
    find: (version) =>
      changedOf(version).flatMap((one) =>
        one.plain!.rel === 7 &&
        !one.moved &&
        ['dominant', 'major', 'suspended'].includes(one.plain!.kind) &&
        (hasDegree(one.chord, '7') || hasDegree(one.chord, 'b3'))
          ? [foundAt(one, `${heardName(one)} on the V`)]
          : [],
      ),
  },
  {
    name: 'no bIImaj7 for triads',
    isLocal: true,
    why: 'A major seventh a half step above its goal stands for no V: its guide tones are others.',
    find: (version) =>
      changedOf(version).flatMap((one) =>
        one.moved &&
        hasDegree(one.chord, '7') &&
        !hasDegree(one.chord, 'b3') &&
        degreeIn(one.plain!, one.root) === 1 &&
        !version.plain.some((spot) => pitchClass(spot.chord.root) === one.root)
          ? [foundAt(one, heardName(one))]
          : [],
      ),
  },
  {
    name: 'resolution missing',
    isLocal: true,
    why: 'A dominant that was put in is paid back by the chord it points at.',
    find: (version) =>
      changedOf(version).flatMap((one) => {
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
        return [foundAt(one, `${heardName(one)} does not go where it points`, deceptive ? 0.5 : 1)]
      }),
  },
  {
    name: 'ii with its V',
    isLocal: true,
    why: 'A ii that was put in asks for its V.',
    find: (version) =>
      changedOf(version).flatMap((one) => {
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
        return inside || goes ? [] : [foundAt(one, `${heardName(one)} leads nowhere`)]
      }),
  },
  {
    name: 'stray chord',
    isLocal: true,
    why: 'A chord from outside the key needs a reason: a goal, a line, a loan.',
    find: (version) =>
      changedOf(version).flatMap((one) => {
        const spot = one.plain!
        const out = tonesOutside(one.chord, spot.key)
        if (!one.moved || out === 0) return []
        const next = onwards(one, version)
        const { previous } = one
        const step = degreeIn(spot, one.root)
        const minor = hasDegree(one.chord, 'b3')
        // ii-Vs that fall by half steps: the next ii lies a half step under this one.
        if (
          isDominant(one) &&
          previous &&
          next &&
          up(previous.root, one.root) === 5 &&
          up(next.root, previous.root) === 1 &&
          hasDegree(previous.chord, 'b3') &&
          hasDegree(next.chord, 'b3')
        )
          return []
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
          return [foundAt(one, `${heardName(one)} is borrowed`, 0.25)]
        if (hasDegree(one.chord, 'b3') && next && up(one.root, next.root) === 5 && isDominant(next)) return []
        if (hasDegree(one.chord, 'bb7') || (minor && hasDegree(one.chord, 'b5'))) return []
        if (next && minor && apart(one.root, next.root) === 1 && next.kind === one.kind)
          return [foundAt(one, `${heardName(one)} slides`, 0.3)]
        if (previous && next && apart(one.bass, next.bass) <= 2 && apart(one.bass, previous.bass) <= 2)
          return [foundAt(one, `${heardName(one)} is on a line`, 0.5)]
        return [foundAt(one, `${heardName(one)} comes from nowhere`, Math.min(2, out / 2))]
      }),
  },
  {
    name: 'passing diminished steps',
    isLocal: true,
    why: 'A diminished chord fills the half step between two basses, or leads up by one.',
    find: (version) =>
      changedOf(version).flatMap((one) => {
        const next = onwards(one, version)
        if (one.kind !== 'diminished' || one.plain?.kind === 'diminished' || !next) return []
        const leads =
          up(one.bass, next.bass) === 1 ||
          up(one.bass, next.bass) === 11 ||
          up(one.root, next.root) === 1 ||
          next.root === one.root ||
          (one.previous !== null && one.previous.root === next.root && one.previous.root === one.root)
        return leads ? [] : [foundAt(one, `${heardName(one)} does not step into ${heardName(next)}`)]
      }),
  },
  {
    name: 'colour of the degree',
    isLocal: true,
    why: 'An added tone comes from the scale of its place.',
    find: (version) =>
      changedOf(version).flatMap((one) => {
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
              return spot.rel === 7 || spot.rootRise === 5 ? [] : [foundAt(one, `b7 on ${heardName(one)}`)]
            if (isSpecial.has(sound))
              return [foundAt(one, `${degree} on ${heardName(one)}`, songs(version) ? 0.6 : 0.1)]
            return [foundAt(one, `${degree} on ${heardName(one)}`)]
          })
      }),
  },
  {
    name: 'bright flips',
    isLocal: true,
    why: 'Home and V keep their third.',
    find: (version) =>
      changedOf(version).flatMap((one) => {
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
        return [
          foundAt(
            one,
            `${heardName(one)} for ${heardName(spot)}`,
            isHome && hasDegree(one.chord, 'b3') ? 2 : plain,
          ),
        ]
      }),
  },
  {
    name: 'idiom',
    isLocal: true,
    why: 'Each style has its own colours and its own ways; another style among them is heard at once.',
    find: (version) =>
      changedOf(version).flatMap((one) => {
        const spot = one.plain!
        const minorFive = spot.key.mode === 'minor' && spot.rel === 7
        const { chord } = one
        if (songs(version)) {
          // IV goes to the bVII7; that does not stand for it.
          if (isDominant(one) && one.begins && spot.rel === 5 && degreeIn(spot, one.root) === 10)
            return [foundAt(one, `${heardName(one)} for ${heardName(spot)}`, 1.5)]
          if (isDominant(one) && one.moved && one.next && up(one.root, one.next.root) === 11)
            return [foundAt(one, `${heardName(one)} slides in`)]
          if (isAltered(one) && !minorFive)
            return [foundAt(one, heardName(one), version.idiom === 'song' ? 1 : 0.4)]
          if (
            isSus(one) &&
            one.moved &&
            hasDegree(chord, 'b7') &&
            ![7, 2].includes(degreeIn(spot, one.root)) &&
            !chord.bass
          )
            return [foundAt(one, `${heardName(one)} is planed`)]
          if (hasDegree(chord, '13', '#11') && hasDegree(chord, 'b7', '7'))
            return [foundAt(one, heardName(one), 0.7)]
          if (version.idiom === 'song' && hasDegree(chord, '6') && hasDegree(chord, '9'))
            return [foundAt(one, heardName(one), 0.4)]
          if (
            hasDegree(chord, 'b3') &&
            (hasDegree(chord, '7') || hasDegree(chord, '6')) &&
            ![5, 0].includes(spot.rel)
          )
            return [foundAt(one, heardName(one), 0.6)]
          // On a minor home alone they are another style; inside a line they pass.
          if (
            version.idiom === 'song' &&
            spot.rel === 0 &&
            spot.key.mode === 'minor' &&
            hasDegree(chord, '7', '6') &&
            !hasDegree(spot.chord, '7', '6')
          ) {
            const inLine = one.previous?.root === one.root && one.next !== null
            if (inLine) return [foundAt(one, heardName(one), 0.4)]
            return [foundAt(one, heardName(one), hasDegree(chord, '7', '9') ? 1.4 : 0.6)]
          }
        }
        if (isBlues(version) && hasDegree(chord, '7') && !hasDegree(chord, 'b3') && [0, 5].includes(spot.rel))
          return [foundAt(one, `${heardName(one)} takes the blues out`)]
        if (isBlues(version) && isAltered(one) && spot.rel === 5 && !one.moved)
          return [foundAt(one, `${heardName(one)} on the IV`)]
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
      return changedOf(version).flatMap((one) => {
        const sounds = one.chord.tones.map(({ note }) => pitchClass(note))
        const { chord, key } = one.plain!
        const isItsOwn = version.idiom === 'modal' && tonesOutside(chord, key) > 0
        const plane = version.idiom === 'modal' ? planeOf(chord, isItsOwn) : []
        const isOfPlane = (sound: number) => plane.includes((sound - pitchClass(chord.root) + 12) % 12)
        const leads = sounds.includes(leading) && !isOfPlane(leading)
        if (leads && version.analysis.key.mode === 'minor')
          return [foundAt(one, `${heardName(one)} has the leading note`)]
        if (leads && version.plain.some(({ role }) => role === 'Mixolydian tonic'))
          return [foundAt(one, `${heardName(one)} has the leading note`)]
        const out = sounds.filter((sound) => !isOfPlane(sound) && (isItsOwn || !scale.has(sound))).length
        return out > 0 && (version.idiom === 'modal' || version.analysis.key.mode === 'minor')
          ? [foundAt(one, `${heardName(one)} leaves the mode`, out / 2)]
          : []
      })
    },
  },
  {
    name: 'minor ii-V',
    isLocal: true,
    why: 'In minor the ii is half-diminished, and V takes the flat ninth.',
    find: (version) =>
      changedOf(version).flatMap((one) => {
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
          ? [foundAt(one, `${heardName(one)} before ${heardName(next)}`)]
          : []
      }),
  },
  {
    name: 'sus before the dominant',
    isLocal: true,
    why: 'The fourth comes first and falls to the third.',
    find: (version) =>
      changedOf(version).flatMap((one) => {
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
          ...(after ? [foundAt(one, `${heardName(one)} after ${heardName(previous)}`)] : []),
          ...(left ? [foundAt(one, `${heardName(one)} does not fall to its third`, 0.3)] : []),
        ]
      }),
  },
  {
    name: 'colour laid over all',
    why: 'In a song a colour on every chord, and nothing that moves, softens all and says nothing.',
    find: (version) => {
      if (!songs(version)) return []
      const coloured = changedOf(version).filter(
        (one) => !one.moved && one.bass === one.root && one.begins && !isSus(one),
      )
      // What moves among them: a bass, a suspension that falls, a chord put in.
      const moving = version.sounded.filter(
        (one) => one.plain && !one.isPlain && (one.moved || one.bass !== one.root || !one.begins),
      ).length
      const over = coloured.length / version.plain.length - 0.5 - MOVING * moving
      return over > 0 && coloured[0]
        ? [
            foundAt(
              coloured[0],
              `${coloured.length} of ${version.plain.length} chords are coloured`,
              over * 4,
            ),
          ]
        : []
    },
  },
  {
    name: 'left bare',
    why: 'A triad among colours sounds forgotten.',
    find: (version) => {
      if (songs(version)) return []
      return version.sounded.flatMap((one) =>
        one.chord.tones.length === 3 && one.isPlain && one.kind !== 'diminished'
          ? [foundAt(one, heardName(one))]
          : [],
      )
    },
  },
  {
    name: 'made plainer',
    isLocal: true,
    why: 'What the chart writes of a chord stays.',
    find: (version) =>
      changedOf(version).flatMap((one) => {
        const spot = one.plain!
        if (one.moved) return []
        const lost =
          (hasDegree(spot.chord, 'b7') && !hasDegree(one.chord, 'b7')) ||
          ((['b7', '7', '6'] as const).some((degree) => hasDegree(spot.chord, degree)) &&
            !hasDegree(one.chord, 'b7', '7', '6', 'bb7'))
        return lost && spot.kind !== 'minor' ? [foundAt(one, `${heardName(one)} for ${heardName(spot)}`)] : []
      }),
  },
]

/** What one thing that moves makes up for, as a share of the chords that are coloured. */
const MOVING = 0.06

/**
 * Half steps above a chord of a mode that belong to it: of a plane of its own all of its Dorian or
 * Lydian, at home its Dorian sixth.
 */
function planeOf(chord: ChordSymbol, isItsOwn: boolean): readonly number[] {
  if (hasDegree(chord, 'b3')) return isItsOwn ? [0, 2, 3, 5, 7, 9, 10] : [9]
  return isItsOwn ? [0, 2, 4, 6, 7, 9, 11] : []
}
