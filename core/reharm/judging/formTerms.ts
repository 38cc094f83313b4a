import { firstOf, itemAt, lastOf } from '../../lists'
import { hasDegree, type ChordSymbol } from '../../chord/symbol'
import { pitchClass } from '../../pitch/note'
import { firstAt } from '../atPlace'
import { tonesOutside } from '../distance'
import { Spot } from '../spot'
import { apart, up, type Aligned, type Sounded } from './aligned'
import {
  type Found,
  type JudgedTerm,
  foundAt,
  heardName,
  isDominant,
  isSus,
  lineTone,
  degreeIn,
  changedOf,
  resolvesTo,
  onwards,
  sectionsOf,
  headOf,
} from './heard'

/**
 * What a version does to the form: where it is at home, where it arrives, what returns. Common
 * practice, no source.
 */
export const FORM_TERMS: readonly JudgedTerm[] = [
  {
    name: 'home lost',
    why: 'The first and the last chord say where the tune is at home.',
    find: (version) => {
      const [first, last] = [version.sounded[0], version.sounded.at(-1)]
      const [begin, end] = [version.plain[0], version.plain.at(-1)]
      const lastStart = version.sounded.filter(({ plain }) => plain === end)
      const isTurning =
        lastOf(version.plain).rel === 7 || firstOf(version.plain).rel !== 0 || end!.place === 'turnaround'
      return [
        ...(first && begin && first.root !== pitchClass(begin.chord.root)
          ? [foundAt(first, `${heardName(first)} opens for ${heardName(begin)}`)]
          : []),
        ...(last && end && !isTurning && !lastStart.some((one) => one.root === pitchClass(end.chord.root))
          ? [foundAt(last, `${heardName(last)} closes for ${heardName(end)}`)]
          : []),
        ...(last && end && !isTurning && last.root !== pitchClass(end.chord.root) && isDominant(last)
          ? [foundAt(last, `${heardName(last)} leaves the end open`, 0.5)]
          : []),
      ]
    },
  },
  {
    name: 'end at rest',
    isLocal: true,
    why: 'The last chord rests: its root lies below, and no line stops half way.',
    find: (version) => {
      const end = version.plain.at(-1)
      if (!end || end.rel !== 0 || end.place === 'turnaround' || version.plain[0] === end) return []
      const chords = version.over(end)
      const [head, last] = [chords[0], chords.at(-1)]
      if (!head || !last || last.isPlain || last.root !== pitchClass(end.chord.root)) return []
      if (last.bass !== pitchClass(end.chord.bass ?? end.chord.root))
        return [foundAt(last, `${heardName(last)} closes over another bass`)]
      const stops =
        head !== last &&
        head.root === last.root &&
        !isDominant(head) &&
        (hasDegree(last.chord, 'b7', '4') || (hasDegree(last.chord, '7') && hasDegree(last.chord, 'b3')))
      return stops ? [foundAt(last, `${heardName(last)} stops on the way`, 0.6)] : []
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
            ? [
                foundAt(
                  head,
                  `${heardName(head)} stands where ${heardName(spot)} arrives`,
                  standsIn ? 0.4 : 1,
                ),
              ]
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
            ['dominant', 'major', 'suspended'].includes(spot.kind) &&
            (spot.rel === 7 ? spot.place === 'cadence' || spot.rootRise === 5 : isOtherFive(spot)),
        )
        .flatMap((spot) => {
          const chords = version.over(spot)
          const five = pitchClass(spot.chord.root)
          const kept = chords.some(
            (one) =>
              (one.root === five && !hasDegree(one.chord, 'b3') && !hasDegree(one.chord, '7')) ||
              (one.bass === five && one.root !== five) ||
              (isDominant(one) && up(one.root, five) === 6) ||
              (hasDegree(one.chord, 'bb7') &&
                ([4, 7, 10, 1].includes(up(five, one.root)) ||
                  (one.next !== null && apart(one.bass, one.next.bass) === 1))) ||
              // Its ii, where it follows itself.
              (up(one.root, five) === 5 && one.next?.root === five),
          )
          const [head] = chords
          return head && !kept
            ? [foundAt(head, `${heardName(head)} takes the V away`, spot.rel === 7 ? 1 : 0.8)]
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
          index > 0 &&
          itemAt(version.plain, index - 1).rel === 7 &&
          spot.rel === 9 &&
          spot.place === 'arrival',
      )
      return [surprise, ...deceived].flatMap((spot) =>
        spot
          ? changedOf(version)
              .filter(
                (one) =>
                  one.moved &&
                  one.plain!.index < spot.index &&
                  one.root === pitchClass(spot.chord.root) &&
                  (tonesOutside(spot.chord, spot.key) > 0
                    ? hasDegree(one.chord, 'b3') === hasDegree(spot.chord, 'b3')
                    : one.plain!.rel === 0),
              )
              .map((one) => foundAt(one, `${heardName(one)} comes before ${heardName(spot)} does`))
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
          return [foundAt(head, `${heardName(head)} for the IV of bar 5`, 1.5)]
        if (bar === 10 && spot.rel === 7) {
          const kept = version
            .over(spot)
            .some(
              (one) =>
                one.bass === pitchClass(spot.chord.root) ||
                (isDominant(one) && apart(one.root, pitchClass(spot.chord.root)) === 6) ||
                degreeIn(spot, one.root) === 7,
            )
          return kept ? [] : [foundAt(head, `no V in bar 10`)]
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
        if (!second) return null
        const [head] = chords
        // The same line inside one chord after another.
        if (!second.moved && second.bass === head!.bass && chords.length === 2 && !isSus(head!))
          return { key: `a line to ${second.kind} ${lineTone(second)}`, spot, second }
        // Each chord followed by its own inversion.
        if (!second.moved && second.bass !== head!.bass && second.chord.bass && chords.length === 2)
          return { key: 'its own bass', spot, second }
        if (!second.moved) return null
        // Told by how it lies to the chord it is put in beside, or to the next.
        const next = second.next ? up(second.root, second.next.root) : 0
        return { key: `${second.kind} ${next}`, spot, second }
      })
      let run = 0
      return tricks.flatMap((trick, index) => {
        const before = tricks[index - 1]
        // The same two chords again, where the chart goes on to another.
        if (
          trick &&
          before &&
          heardName(trick.spot) !== heardName(before.spot) &&
          version.over(trick.spot).map(heardName).join() === version.over(before.spot).map(heardName).join()
        )
          return [foundAt(trick.second, `${heardName(trick.second)}: what the bar before says`)]
        run = trick && before?.key === trick.key ? run + 1 : 0
        return trick && run >= 2
          ? [
              foundAt(
                trick.second,
                `${heardName(trick.second)}: the same once more`,
                trick.key.startsWith('a line') ? 0.5 : 1,
              ),
            ]
          : []
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
                foundAt(
                  last[0],
                  `${last.length} chords where the phrase rests`,
                  more(last, to) - (isLastSection ? 0 : 1),
                ),
              ]
            : []),
          ...(first[0] && more(first, from) > 1
            ? [foundAt(first[0], `${first.length} chords where the phrase begins`, more(first, from) - 1)]
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
      if (end.rel === 0 && firstOf(version.plain).rel === 0) return []
      return resolvesTo(last, top)
        ? []
        : [foundAt(last, `${heardName(last)} does not lead to ${heardName(top)}`)]
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
        changedOf(version).filter(
          ({ barIndex, moved }) => moved && barIndex >= section.from && barIndex <= section.to,
        ).length
      const versionOf = (section: { from: number; to: number }) =>
        version.sounded
          .filter(({ barIndex }) => barIndex >= section.from && barIndex <= section.to)
          .map((one) => `${one.barIndex - section.from} ${one.beat} ${one.root} ${one.bass}`)
          .join()
      const same = (a: { from: number; to: number }, b: { from: number; to: number }) =>
        a.to - a.from === b.to - b.from && versionOf(a) === versionOf(b)
      return sections.flatMap((section, index) => {
        const root = (list: readonly Spot[]) => list.slice(0, 4).map(heardName).join(' ')
        const earlier = sections
          .slice(0, index)
          .find((other) => root(plainOf(other)) === root(plainOf(section)))
        const isLast = section === sections.at(-1) && index > 1
        if (earlier && isLast && far(earlier) > 1 && same(earlier, section))
          return [nothingNew(plainOf(section))]
        if (!earlier || far(earlier) <= far(section) + 1) return []
        return [
          {
            bar: itemAt(version.chart.bars, section.from).number,
            beat: 1,
            amount: Math.min(2, (far(earlier) - far(section)) / 2),
            what: 'the repeat goes less far than the first time',
          },
        ]
      })
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
      changedOf(version).flatMap((one) =>
        one.plain!.place === 'cadence' ||
        (one.plain!.rel === 7 && one.plain!.rootRise === 5) ||
        (isDominant(one) && resolvesTo(one, onwards(one, version)))
          ? [foundAt(one, heardName(one))]
          : [],
      ),
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
    return order >= 0
      ? [foundAt(firstOf(chords), chords.map(heardName).join(' '), Math.max(0.1, 1 - order / 8))]
      : []
  })
}

/**
 * The V of another chord than home, which follows: its third is not of the key, or its seventh is
 * written.
 */
const isOtherFive = (spot: Spot) =>
  spot.rootRise === 5 &&
  hasDegree(spot.chord, '3') &&
  spot.rel !== 0 &&
  tonesOutside(spot.chord, spot.key) > 0

/** Said where the last time through could go further: at its cadence. */
const nothingNew = (spots: readonly Spot[]): Found => {
  const { slot } = spots.findLast(({ place }) => place === 'cadence') ?? firstOf(spots)
  return { bar: slot.bar, beat: slot.beat, amount: 0.5, what: 'the last time brings nothing new' }
}
