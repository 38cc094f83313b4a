import { firstOf } from '../../lists'
import { hasDegree } from '../../chord/symbol'
import { noteName, pitchClass } from '../../pitch/note'
import { barStarts, heardOver } from '../melodyFit'
import { tonesOutside } from '../distance'
import { Spot } from '../spot'
import { apart, up } from './aligned'
import {
  type JudgedTerm,
  foundAt,
  heardName,
  isDominant,
  isSus,
  degreeIn,
  changedOf,
  resolvesTo,
  onwards,
  lineTone,
  headOf,
} from './heard'

/**
 * What joins the chords: the bass, lines inside them, the metre, the melody. Common practice, no
 * source.
 */
export const LINE_TERMS: readonly JudgedTerm[] = [
  {
    name: 'written bass kept',
    isLocal: true,
    why: 'A bass that is written is part of the tune.',
    find: (version) =>
      version.plain.flatMap((spot) => {
        const head = headOf(version, spot)
        if (!spot.chord.bass || !head || head.bass === pitchClass(spot.chord.bass)) return []
        return [foundAt(head, `${heardName(head)} for ${heardName(spot)}`)]
      }),
  },
  {
    name: 'bass of the chord',
    isLocal: true,
    why: 'A bass that is no tone of its chord is a pedal, or V under what prepares it; the seventh below falls on by step.',
    find: (version) =>
      changedOf(version).flatMap((one) => {
        const { chord, plain, previous } = one
        if (!chord.bass || one.bass === one.root) return []
        const next = onwards(one, version)
        const above = up(one.root, one.bass)
        if (plain === version.plain[0] && one.begins && !plain?.chord.bass && above > 0)
          return [foundAt(one, `the tune begins over another bass with ${heardName(one)}`, 1.2)]
        if (isSus(one) && hasDegree(chord, '4') && [3, 4].includes(above))
          return [foundAt(one, `the fourth of ${heardName(one)} lies over its third`)]
        const isOwn =
          plain &&
          [plain.chord.bass ?? plain.chord.root, plain.chord.root].some(
            (note) => pitchClass(note) === one.bass,
          )
        if (isOwn) return []
        const isHeld = previous?.bass === one.bass || next?.bass === one.bass
        // V over the bass of home does not close.
        if (plain && plain.rel === 7 && degreeIn(plain, one.bass) === 0 && previous?.bass !== one.bass)
          return [foundAt(one, `${heardName(one)} has home in its bass already`, 0.7)]
        const isStrange = plain && tonesOutside(chord, plain.key) > 0 && previous?.bass !== one.bass
        if (plain && isHeld && !isStrange && [0, 7].includes(degreeIn(plain, one.bass))) return []
        if (above === 11) {
          const falls =
            previous?.root === one.root &&
            previous.bass === one.root &&
            next !== null &&
            up(next.bass, one.bass) <= 2
          return falls ? [] : [foundAt(one, `${heardName(one)} stands on its major seventh`)]
        }
        const stepsDown = (from: number, to: number) => up(to, from) >= 1 && up(to, from) <= 2
        if (above === 10 && isDominant(one) && next !== null && next.root !== one.root)
          return stepsDown(one.bass, next.bass)
            ? []
            : [foundAt(one, `the seventh below ${heardName(one)} does not fall to a third`, 0.7)]
        if (above === 10) {
          const comes =
            previous !== null &&
            (previous.root === one.root || previous.bass === one.bass || stepsDown(previous.bass, one.bass))
          return comes ? [] : [foundAt(one, `the bass of ${heardName(one)} comes from nowhere`, 0.7)]
        }
        // Where a phrase arrives its root lies below.
        if (
          above === 7 &&
          one.begins &&
          plain?.place === 'arrival' &&
          one.root === pitchClass(plain.chord.root)
        )
          return [foundAt(one, `${heardName(one)} arrives on its fifth`)]
        // A six-four closes, passes or stands.
        if (above === 7 && one.begins && !isDominant(one)) {
          const closes = next !== null && next.bass === one.bass
          const passes =
            previous !== null &&
            next !== null &&
            apart(previous.bass, one.bass) <= 2 &&
            apart(one.bass, next.bass) <= 2
          const stands = previous?.bass === one.bass || previous?.root === one.root
          return closes || passes || stands
            ? []
            : [foundAt(one, `${heardName(one)} stands on its fifth`, 0.7)]
        }
        if (chord.tones.some(({ note }) => pitchClass(note) === one.bass)) return []
        // What prepares it over the bass of V, which goes home.
        if (next !== null && up(one.bass, next.bass) === 5) return []
        const rubs = chord.tones.some(({ note }) => up(one.bass, pitchClass(note)) === 1)
        return [foundAt(one, `the bass of ${heardName(one)} is none of its tones`, rubs ? 1.2 : 0.8)]
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
        return walks ? [foundAt(head, `${heardName(head)} breaks the bass`)] : []
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
          return [{ bar: spot.slot.bar, beat: spot.slot.beat, amount: 1, what: `${heardName(spot)} is gone` }]
        const { previous } = head
        return previous &&
          previous.root === head.root &&
          previous.bass === head.bass &&
          previous.kind === head.kind &&
          (previous.moved || head.moved) &&
          !(head.isPlain || previous.isPlain)
          ? [foundAt(head, `${heardName(previous)} stands on as ${heardName(head)}`)]
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
        const stood = first && heardName(first) === heardName(spot)
        if (!stood) return []
        const next = onwards(one, version)
        const goes =
          next !== null &&
          (resolvesTo(one, next) || (hasDegree(one.chord, 'b3') && up(one.root, next.root) === 5))
        const pedal = one.chord.bass !== null && one.bass === pitchClass(spot.chord.root)
        // The shape goes up a step inside the mode, between two times of itself.
        const isPlaned =
          version.idiom === 'modal' &&
          up(pitchClass(spot.chord.root), one.root) === 2 &&
          hasDegree(one.chord, 'b3') &&
          one.previous?.root === pitchClass(spot.chord.root)
        if (pedal || goes || isPlaned) return []
        const minor = hasDegree(spot.chord, 'b3')
        return [
          foundAt(
            one,
            `${heardName(one)} in the time of ${heardName(spot)}`,
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
            (other) => heardName(other) === heardName(spot) && Math.abs(other.index - spot.index) < 4,
          ).length >= 3
        return lasts && one.bass !== pitchClass(spot.chord.root)
          ? [foundAt(one, `${heardName(one)} leaves the bass of ${heardName(spot)}`, 0.6)]
          : []
      }),
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
        if (order > 0) return solo ? [foundAt(one, `${heardName(one)} on ${one.beat}`, 0.5)] : []
        return [foundAt(one, `${heardName(one)} on ${one.beat}`)]
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
        // Away and back inside a bar, for a beat.
        const [a, b, c] = chords
        if (
          c &&
          chords.length === 3 &&
          b!.beats < 2 &&
          a!.root === c.root &&
          b!.root !== a!.root &&
          isDominant(a!) &&
          isDominant(c)
        )
          return [foundAt(b!, `${heardName(b!)} comes between ${heardName(a!)} and itself`, 1.5)]
        return chords.length > 2 && quick > 0
          ? [
              foundAt(
                firstOf(chords),
                `${chords.length} chords in the time of ${heardName(spot!)}`,
                (chords.length - 2) * 0.6,
              ),
            ]
          : []
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
            return [foundAt(one, `${noteName(note)} over ${heardName(one)}`, plain === 'sour' ? 0.2 : 1)]
          // The natural fifth of V is the b9 of its substitute.
          if (heard === 'avoid' && one.moved && isDominant(one) && up(one.root, pitchClass(note)) === 1)
            return [foundAt(one, `${noteName(note)} is the b9 of ${heardName(one)}`, 1)]
          if (heard === 'avoid')
            return [foundAt(one, `${noteName(note)} over ${heardName(one)}`, plain === 'avoid' ? 0.1 : 0.5)]
          return []
        })
      })
    },
  },
  {
    name: 'bass direction',
    isLocal: true,
    why: 'A bass walks, falls in fifths, or stands.',
    find: (version) =>
      changedOf(version).flatMap((one) => {
        const next = onwards(one, version)
        if (!next || (!one.moved && one.bass === one.root && !next.moved)) return []
        const by = apart(one.bass, next.bass)
        return [3, 4, 6].includes(by)
          ? [foundAt(one, `${heardName(one)} to ${heardName(next)}`, by === 6 ? 1 : 0.7)]
          : []
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
              foundAt(
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
        return bass || inner ? [foundAt(one, `${heardName(previous)} ${heardName(one)}`)] : []
      }),
  },
]
