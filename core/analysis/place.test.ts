import { firstOf, itemAt, lastOf } from '../lists'
import { parseChart } from '../chart/parseChart'
import { printChart } from '../chart/print'
import { analyse } from './analyse'

const read = (text: string) => analyse(parseChart(text))
const places = (text: string) => read(text).readings.map(({ slot, place }) => `${slot.bar} ${place}`)

describe('the place of a chord (common practice, no source)', () => {
  test('home where a section begins and ends, the cadence into it, what stands, and what is on the way', () => {
    expect(places('key: C\n[A] | C | % | Am | F | C | Dm7 | G7 | C |')).toEqual([
      '1 arrival',
      '2 standing',
      '3 way',
      '4 way',
      '5 way',
      '6 cadence',
      '7 cadence',
      '8 arrival',
    ])
  })
  test('the V at the end resolves into bar 1; home that stands before the top is where the form turns', () => {
    const text = 'key: C\n[A] | C | Am | F | G7 | C | F | C | G7 |'
    const { readings } = read(text)
    expect(readings.at(-1)).toMatchObject({ role: 'dominant to major' })
    expect(places(text).at(-1)).toMatch(/turnaround|cadence/)
    expect(places('key: F\n| F | Dm | Gm7 | C7 | F | Bb | F | % |').slice(-2)).toEqual([
      '7 arrival',
      '8 turnaround',
    ])
  })
  test('a surprise is an arrival: where V goes elsewhere, and the first borrowed chord of a section', () => {
    const { readings } = read('key: C\n[A] | C | F | G7 | Am | F | Fm | C | Fm |')
    expect(readings[3]).toMatchObject({
      place: 'arrival',
      placeReason: expect.stringContaining('home was expected') as string,
    })
    expect(itemAt(readings, 5).place).toBe('arrival')
    expect(itemAt(readings, 7).place).not.toBe('arrival')
  })
  test('a new key is an arrival', () => {
    const { readings } = read(
      'key: C\n[A] | C | G7 | C | C |\n[B] | Bbm7 | Eb7 | Ab | Db | Eb7 | Ab | G7 | C |',
    )
    expect(readings[6]).toMatchObject({ place: 'arrival' })
  })
})

describe('home is kept (common practice, no source)', () => {
  test.each([
    ['| G | Dm7 | G7 | C | Cm | G |', 'G', 'plagal cadence'],
    ['key: G\n| G | Dm7 | G7 | C | Cm | G |', 'G', 'plagal cadence'],
    ['key: D\n| D | Am7 | D7 | G | C | D |', 'D', null],
  ])('%s', (text, key, cadence) => {
    const { readings, groups, regions } = read(text)
    expect(lastOf(readings).roman).toBe('I')
    expect(regions).toHaveLength(1)
    expect(firstOf(readings).slot.symbol).toMatchObject({ chord: { canonical: key } })
    if (cadence) expect(groups.map(({ kind }) => kind)).toContain(cadence)
    expect(groups.map(({ kind }) => kind)).not.toContain('half cadence')
  })
  test('chords over the bass of V are V, and their cadence is authentic', () => {
    const { readings, groups } = read('key: C\n| C | F/G | Am | Dm7/G | C | Fm/G | C |')
    expect(readings.map(({ roman }) => roman)).toEqual(['I', 'V9sus', 'vi', 'V11', 'I', 'V7susb9', 'I'])
    expect([1, 3, 5].map((at) => itemAt(readings, at).function)).toEqual(['dominant', 'dominant', 'dominant'])
    expect(groups.map(({ kind }) => kind)).toContain('authentic cadence')
  })
  test('a Lydian tonic and the #IV°7 on its way home have their names', () => {
    const { readings } = read('key: C\n| Cmaj7#11 | F7 | F#dim7 | C7 | G7 | Cmaj7#11 |')
    expect(readings[0]).toMatchObject({ function: 'tonic', role: 'I major' })
    expect(readings[2]).toMatchObject({ function: 'passing diminished' })
  })
  test('I vi into a far key is no turnaround', () => {
    expect(read('key: C\n| C | Am | F#m7 | B7 | E | E |').groups.map(({ kind }) => kind)).not.toContain(
      'turnaround',
    )
  })
})

describe('the idiom (common practice, no source)', () => {
  test.each([
    ['key: G\n| G | C | D | G | Em | C | D | G |', 'song'],
    ['key: C\n| C | C/E | F | F#dim7 | C/G | Am | G | C |', 'gospel'],
    ['key: F\n| F7 | Bb7 | F7 | % | Bb7 | % | F7 | D7 | Gm7 | C7 | F7 | C7 |', 'blues'],
    ['key: Cm\n| Cm7 | % | % | % | Fm7 | % | Cm7 | % | Ab7 | G7 | Cm7 | % |', 'minor blues'],
    ['key: Bb\n| Bbmaj7 | G7 | Cm7 | F7 | Dm7 | G7 | Cm7 F7 | Bb6 |', 'jazz'],
    ['key: Dm\n| Dm7 | % | % | % | Ebm7 | % | Dm7 | % |', 'modal'],
    ['key: C\nmeter: 3/4\n| Cmaj7 | A7 | Dm7 | G7 |', 'waltz'],
    ['key: C\nmeter: 3/4\n| C | F | G | C |', 'song'],
    ['title: Small Bossa\nkey: C\n| Cmaj7 | D7 | Dm7 | G7 |', 'bossa'],
  ])('%s', (text, idiom) => expect(read(text).idiom).toMatchObject({ idiom }))
  test('the chart may name it, and keeps it; what is none says which there are', () => {
    const text = 'key: C\nidiom: Minor Blues\n| C | F |'
    expect(read(text).idiom).toEqual({ idiom: 'minor blues', reason: 'The chart says so.' })
    expect(parseChart(printChart(parseChart(text))).idiom).toBe('minor blues')
    const [fault] = parseChart('idiom: polka\n| C |').problems
    expect(fault).toMatchObject({
      code: 'bad-idiom',
      accepted: expect.stringContaining('gospel') as string,
    })
  })
})
