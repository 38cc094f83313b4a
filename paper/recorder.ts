import { RenderContext, type FontInfo, type TextMeasure } from 'vexflow'
import { said, at, type Mark } from './marks'

interface PenState {
  fill: string
  stroke: string
  width: number
}

/** A page for the notation library to draw on: what it draws is kept as marks, in points. */
export class Recorder extends RenderContext {
  readonly marks: Mark[] = []
  /** Highest and lowest place that was drawn on, in points. */
  top = Infinity
  bottom = -Infinity
  private d = ''
  private state: PenState = { fill: 'black', stroke: 'black', width: 1 }
  private readonly kept: PenState[] = []
  private fontSize = 10

  /** @param points how many points a unit of the library is */
  constructor(private readonly points: number) {
    super()
  }

  private place(x: number, y: number): string {
    const down = y * this.points
    this.top = Math.min(this.top, down)
    this.bottom = Math.max(this.bottom, down)
    return at(x * this.points, down)
  }
  private keep(mark: { fill?: 'ink'; stroke?: 'ink' }): this {
    if (this.d !== '')
      this.marks.push({
        kind: 'path',
        d: this.d,
        ...mark,
        ...(mark.stroke ? { width: Math.max(0.4, this.state.width * this.points) } : {}),
      })
    return this
  }

  beginPath(): this {
    this.d = ''
    return this
  }
  moveTo(x: number, y: number): this {
    this.d += `M${this.place(x, y)}`
    return this
  }
  lineTo(x: number, y: number): this {
    this.d += `L${this.place(x, y)}`
    return this
  }
  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): this {
    this.d += `C${this.place(x1, y1)} ${this.place(x2, y2)} ${this.place(x, y)}`
    return this
  }
  quadraticCurveTo(x1: number, y1: number, x: number, y: number): this {
    this.d += `Q${this.place(x1, y1)} ${this.place(x, y)}`
    return this
  }
  arc(x: number, y: number, radius: number, from: number, to: number): this {
    // Whole circles only: dots. Parts of one are drawn as short straight lines.
    const steps = Math.max(4, Math.ceil((Math.abs(to - from) / Math.PI) * ARC_STEPS))
    for (let step = 0; step <= steps; step += 1) {
      const angle = from + ((to - from) * step) / steps
      const [px, py] = [x + radius * Math.cos(angle), y + radius * Math.sin(angle)]
      if (step === 0 && this.d === '') this.moveTo(px, py)
      else this.lineTo(px, py)
    }
    return this
  }
  closePath(): this {
    this.d += 'Z'
    return this
  }
  rect(x: number, y: number, width: number, height: number): this {
    return this.moveTo(x, y)
      .lineTo(x + width, y)
      .lineTo(x + width, y + height)
      .lineTo(x, y + height)
      .closePath()
  }
  fill(): this {
    return this.keep({ fill: 'ink' })
  }
  stroke(): this {
    return this.keep({ stroke: 'ink' })
  }
  fillRect(x: number, y: number, width: number, height: number): this {
    return this.beginPath().rect(x, y, width, height).fill().beginPath()
  }
  fillText(text: string, x: number, y: number): this {
    const word = said(text, { size: this.fontSize * this.points, face: 'serif' })
    const [left, down] = [x * this.points, y * this.points]
    this.top = Math.min(this.top, down - word.above)
    this.bottom = Math.max(this.bottom, down + word.below)
    for (const mark of word.marks)
      if (mark.kind === 'text') this.marks.push({ ...mark, x: mark.x + left, y: mark.y + down })
    return this
  }
  measureText(text: string): TextMeasure {
    const { width, above, below } = said(text, { size: this.fontSize, face: 'serif' })
    return { x: 0, y: -above, width, height: above + below }
  }
  save(): this {
    this.kept.push({ ...this.state })
    return this
  }
  restore(): this {
    this.state = this.kept.pop() ?? this.state
    return this
  }
  setLineWidth(width: number): this {
    this.state.width = width
    return this
  }
  setFont(font?: string | FontInfo, size?: string | number): this {
    const given = typeof font === 'object' ? font.size : size
    const read = typeof given === 'number' ? given : parseFloat(given ?? '')
    if (Number.isFinite(read)) this.fontSize = read
    return this
  }
  getFont(): string {
    return `${this.fontSize}pt serif`
  }
  set fillStyle(style: string | CanvasGradient | CanvasPattern) {
    this.state.fill = String(style)
  }
  get fillStyle(): string {
    return this.state.fill
  }
  set strokeStyle(style: string | CanvasGradient | CanvasPattern) {
    this.state.stroke = String(style)
  }
  get strokeStyle(): string {
    return this.state.stroke
  }
  setFillStyle(style: string): this {
    this.state.fill = style
    return this
  }
  setStrokeStyle(style: string): this {
    this.state.stroke = style
    return this
  }
  // Sheets are printed in ink on paper: backgrounds, shadows and the shape of line ends are not
  // theirs.
  clear(): void {}
  clearRect = (): this => this
  setBackgroundFillStyle = (): this => this
  setShadowColor = (): this => this
  setShadowBlur = (): this => this
  setLineCap = (): this => this
  setLineDash = (): this => this
  scale = (): this => this
  resize = (): this => this
  openGroup = (): void => {}
  closeGroup(): void {}
  add(): void {}
}
/** Straight pieces of half a circle. */
const ARC_STEPS = 10
