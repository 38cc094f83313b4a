import { firstOf, lastOf } from '../lists'
import { keyName, parseKey, type Key } from '../pitch/key'
import { IDIOMS, beginsBar, meterName, type Chart, type ChartMark, type Meter } from './chart'
import { formProblems } from './form'
import { problem } from './chartProblem'
import { fitsABeat, MOST_SIGNS, readBar, type Cell } from './readBar'
import { readTokens, type Token } from './tokens'

/** Beats a minute a chart may name. */
export const TEMPO_RANGE = [20, 400] as const
/** The highest fret a capo may lie on. */
export const MOST_CAPO = 12
/** Letters of a section name. */
const MOST_SECTION = 24
/** A passage may be played this often. */
export const MOST_PASSES = 16
/** Settings that may change inside a tune. */
const CHANGES_LATER: readonly string[] = ['key', 'meter']
const KNOWN_SETTINGS: readonly string[] = [...CHANGES_LATER, 'title', 'tempo', 'capo', 'pickup', 'idiom']
/** Bars of a chart that are read; what is beyond them stays in the text and is said. */
export const MOST_BARS = 500
const DEFAULT_METER: Meter = { beats: 4, unit: 4 }

/**
 * Reads a chart text (see docs/chart-text.md). Never fails: what cannot be read is listed in
 * `problems` with line and column, and the rest of the chart stands.
 */
export function parseChart(text: string): Chart {
  const reader = new Reader()
  for (const token of readTokens(text)) if (!reader.take(token)) return reader.overfull(text)
  return reader.finish()
}

const splitLines = (text: string): string[] => text.split(/\r\n|\r|\n/)

type Setting = Extract<Token, { kind: 'setting' }>

/** A chart as it comes together, token by token. */
class Reader {
  private readonly chart: Chart = {
    title: null,
    key: null,
    meter: DEFAULT_METER,
    tempo: null,
    idiom: null,
    capo: 0,
    pickup: 0,
    bars: [],
    problems: [],
    loose: [],
  }
  /** Signs of the bar that is being read. */
  private cells: Cell[] = []
  /** Column behind the last of them. */
  private end = 1
  private section: { text: string; opens: Token | null } | null = null
  private meter = DEFAULT_METER
  private newMeter = false
  private newKey: Key | null = null
  private opensRepeat: Token | null = null
  /** Settings given so far; key and metre may be given again behind a bar. */
  private given = new Set<string>()
  private ending: Extract<Token, { kind: 'ending' }> | null = null
  private marks: { mark: ChartMark; token: Token }[] = []
  private remarks: Extract<Token, { kind: 'remark' }>[] = []

  /** The first sign behind the last bar there is room for. */
  private beyond: Token | null = null

  /** False where there is no room for a bar of this sign. */
  take(token: Token): boolean {
    const full = this.chart.bars.length >= MOST_BARS && this.cells.length === 0
    if (full && !(token.kind === 'barline' && !token.opens)) {
      this.beyond ??= token
      if (token.kind === 'cell') return false
    }
    this.read(token)
    return true
  }

  /** More bars than are read: the rest of the text is kept as it is. */
  overfull(text: string): Chart {
    const { chart, beyond } = this
    const from = beyond!
    const rest = splitLines(text)
      .slice(from.line - 1)
      .join('\n')
      .slice(from.kind === 'setting' ? 0 : from.column - 1)
    chart.problems.push({
      ...problem(
        from,
        'too-many-bars',
        `The chart has more than ${MOST_BARS} bars: what stands from here on is kept as text and not read.`,
        `at most ${MOST_BARS} bars in one chart; % and |: :| save room, and a tune can have several charts`,
      ),
      text: from.text.slice(0, 40),
    })
    chart.loose.push({ before: chart.bars.length, text: rest })
    chart.problems.push(...formProblems(chart))
    return chart
  }

  private read(token: Token): void {
    switch (token.kind) {
      case 'setting':
        this.closeBar()
        this.applySetting(token)
        return
      case 'section':
        this.closeBar()
        if (this.section?.opens)
          this.chart.loose.push({ before: this.chart.bars.length, text: `[${this.section.text}]` })
        if (token.text.length > MOST_SECTION)
          this.chart.problems.push(
            problem(
              token,
              'bad-section',
              `A section name of ${token.text.length} letters has no room over a bar.`,
              `at most ${MOST_SECTION} letters: [A], [Verse 2]`,
            ),
          )
        this.section = { text: token.text, opens: token }
        return
      case 'barline':
        this.closeBar()
        if (token.played > 0) this.closeRepeat(token)
        if (token.opens) this.opensRepeat = token
        return
      case 'ending':
        this.ending = token
        return
      case 'mark':
        this.takeMark(token)
        return
      case 'remark':
        this.remarks.push(token)
        return
      case 'cell':
        this.takeCell(token)
    }
  }

  private takeCell(token: Cell): void {
    this.end = token.column + token.text.length
    const last = this.cells[MOST_SIGNS - 1]
    if (last) this.cells[MOST_SIGNS - 1] = { ...last, text: `${last.text} ${token.text}`, crowded: 'bar' }
    else this.cells.push(fitsABeat(token.text) ? token : { ...token, crowded: 'beat' })
  }

  finish(): Chart {
    this.closeBar()
    const { chart } = this
    const last = chart.bars.at(-1)
    // Words behind the last bar belong to it: there is none they could stand before.
    if (last) last.remarks = [...last.remarks, ...this.remarks.map(({ remark }) => remark)]
    if (this.section?.opens) chart.loose.push({ before: chart.bars.length, text: `[${this.section.text}]` })
    for (const token of [
      this.opensRepeat,
      this.ending,
      ...this.marks.map(({ token: mark }) => mark),
      ...(last ? [] : this.remarks),
    ]) {
      if (!token) continue
      chart.problems.push(
        problem(
          token,
          'nothing-after',
          `"${token.text}" stands before no bar.`,
          'a bar with a chord behind it',
        ),
      )
      chart.loose.push({ before: chart.bars.length, text: writtenSign(token) })
    }
    if (this.newKey) chart.loose.push({ before: chart.bars.length, text: `key: ${keyName(this.newKey)}` })
    if (this.newMeter)
      chart.loose.push({ before: chart.bars.length, text: `meter: ${meterName(this.meter)}` })
    chart.problems.push(...formProblems(chart))
    return chart
  }

  private takeMark(token: Extract<Token, { kind: 'mark' }>): void {
    const before = this.chart.bars.at(-1)
    // "| C | D.C." with nothing behind the line belongs to the bar before it.
    if (!beginsBar(token.mark) && this.cells.length === 0 && before) {
      before.marks = inOrder([...before.marks, token.mark])
      return
    }
    this.marks.push({ mark: token.mark, token })
  }

  private closeRepeat(token: Extract<Token, { kind: 'barline' }>): void {
    const before = this.chart.bars.at(-1)
    if (!before) {
      this.chart.problems.push(
        problem(
          token,
          'nothing-to-repeat',
          'There is no bar before this repeat sign.',
          'a bar with a chord before :|',
        ),
      )
      this.chart.loose.push({ before: 0, text: ':|' })
      return
    }
    if (token.played < 2 || token.played > MOST_PASSES) {
      this.chart.problems.push(
        problem(
          token,
          'bad-times',
          `A passage cannot be played ${token.played} times by a repeat sign.`,
          `x2 to x${MOST_PASSES}`,
        ),
      )
      before.played = 2
    } else before.played = token.played
  }

  private closeBar(): void {
    if (this.cells.length === 0) return
    const { chart, cells } = this
    const first = chart.bars.length === 0
    const pickup = first && chart.pickup > 0
    const behindPickup = first ? 1 : lastOf(chart.bars).number + 1
    const number = pickup ? 0 : behindPickup
    const due = pickup ? chart.pickup : this.meter.beats
    const from = this.meter.beats - due + 1
    chart.bars.push({
      number,
      section: this.section?.text ?? null,
      opensSection: Boolean(this.section?.opens),
      meter: this.meter,
      from,
      due,
      newKey: this.newKey,
      newMeter: this.newMeter,
      opensRepeat: this.opensRepeat !== null,
      played: 0,
      ending: this.ending?.passes ?? [],
      marks: inOrder(this.marks.map(({ mark }) => mark)),
      remarks: this.remarks.map(({ remark }) => remark),
      source: { line: firstOf(cells).line, column: firstOf(cells).column, end: this.end },
      ...readBar(cells, { number, from, due }, chart),
    })
    this.cells = []
    if (this.section) this.section.opens = null
    this.newKey = null
    this.newMeter = false
    CHANGES_LATER.forEach((name) => this.given.delete(name))
    this.opensRepeat = null
    this.ending = null
    this.marks = []
    this.remarks = []
  }

  private applySetting(token: Setting): void {
    const { chart } = this
    const begun = chart.bars.length > 0
    const value = token.text.trim()
    const refuse = (message: string, accepted: string) => {
      chart.problems.push(problem(token, `bad-${token.name}`, message, accepted))
      chart.loose.push({ before: chart.bars.length, text: `${token.name}: ${value}` })
    }
    if (this.given.has(token.name))
      return refuse(
        `"${token.name}:" was given before; the first one counts.`,
        CHANGES_LATER.includes(token.name)
          ? `one ${token.name}: line, another behind a bar`
          : `one ${token.name}: line`,
      )
    if (KNOWN_SETTINGS.includes(token.name)) this.given.add(token.name)
    switch (token.name) {
      case 'title':
        chart.title = value
        return
      case 'key': {
        const key = parseKey(value)
        if (!key.ok) return refuse(key.fault.message, key.fault.accepted!)
        if (begun) this.newKey = key.value
        else chart.key = key.value
        return
      }
      case 'meter': {
        const match = /^(\d{1,2})\/(\d{1,2})$/.exec(value)
        const [beats, unit] = [Number(match?.[1]), Number(match?.[2])]
        if (!match || beats < 1 || beats > 16 || ![2, 4, 8, 16].includes(unit))
          return refuse(`"${value}" is not a metre.`, '1 to 16 beats over 2, 4, 8 or 16: 4/4, 3/4, 6/8')
        this.meter = { beats, unit }
        if (begun) this.newMeter = true
        else {
          chart.meter = this.meter
          if (chart.pickup >= beats) {
            chart.pickup = 0
            refuse('The pickup is as long as a bar of this metre.', 'the metre before the pickup')
          }
        }
        return
      }
      case 'tempo': {
        const tempo = /^\d{1,4}(\.\d+)?$/.test(value) ? Number(value) : NaN
        if (tempo >= TEMPO_RANGE[0] && tempo <= TEMPO_RANGE[1]) chart.tempo = tempo
        else refuse(`"${value}" is not a tempo.`, `${TEMPO_RANGE[0]} to ${TEMPO_RANGE[1]} beats a minute`)
        return
      }
      case 'capo': {
        const fret = /^\d{1,2}$/.test(value) ? Number(value) : NaN
        if (fret >= 0 && fret <= MOST_CAPO) chart.capo = fret
        else refuse(`"${value}" is no fret for a capo.`, `0 to ${MOST_CAPO}`)
        return
      }
      case 'idiom': {
        const idiom = IDIOMS.find((one) => one === value.toLowerCase())
        if (idiom) chart.idiom = idiom
        else refuse(`"${value}" is no idiom.`, IDIOMS.join(', '))
        return
      }
      case 'pickup': {
        const beats = /^\d{1,2}$/.test(value) ? Number(value) : NaN
        const most = this.meter.beats - 1
        if (begun) refuse('A pickup stands before the first bar.', 'pickup: above the first bar')
        else if (beats >= 0 && beats <= most) chart.pickup = beats
        else
          refuse(
            `"${value}" is no length for a pickup.`,
            `0 to ${most} whole beats in ${this.meter.beats}/${this.meter.unit}, the metre above it`,
          )
        return
      }
      default:
        refuse(
          `"${token.name}:" is not a setting.`,
          'title:, key:, meter:, tempo:, capo:, pickup: or idiom: at the beginning of a line',
        )
    }
  }
}

/** Marks where a bar begins stand before those where it ends. */
const inOrder = (marks: readonly ChartMark[]): ChartMark[] => [
  ...marks.filter(beginsBar),
  ...marks.filter((mark) => !beginsBar(mark)),
]

/** A sign as it is typed. */
function writtenSign({ kind, text }: Token): string {
  if (kind === 'ending') return `|${text}`
  return kind === 'barline' ? '|:' : text
}
