import type { Chart } from '../../../core/chart/chart'
import { swingOf } from '../../../core/tune/accompaniment'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import { ControlBar, BarWord } from '../../services/controls/ControlBar'
import { BandWord } from './BandWord'
import { FeelWord } from './FeelWord'
import { FigureWord } from './FigureWord'
import { HandPanel, tempoOfHandInWords, type LateShown } from './HandPanel'
import { PhrasesWord } from './PhrasesWord'
import type { RhythmSetting } from './rhythmSettings'
import { SpaceWord } from './SpaceWord'

interface Props extends RhythmSetting {
  chart: Chart
  /** Beats a minute at which it is heard. */
  tempo: number
  hasMelody: boolean
  /** First and last bar of the selection. */
  selectedBars: readonly [number, number]
  hand: LateShown
  tapping: boolean
  onTap: () => void
  onEdit: (edit: TuneEdit) => void
}

/** What the tune is accompanied with, in words that open. */
export function RhythmBar({ rhythm, chart, tempo, hasMelody, hand, onSet, ...figure }: Props) {
  const setting = { rhythm, onSet }
  return (
    <ControlBar label="How it is accompanied">
      <FigureWord {...setting} {...figure} chart={chart} />
      <SpaceWord {...setting} hasMelody={hasMelody} />
      <FeelWord {...setting} ratio={swingOf(rhythm, tempo, chart.meter)} />
      <PhrasesWord {...setting} />
      <BandWord {...setting} />
      <BarWord name="Hand" term="at-ease-to-112" says={tempoOfHandInWords(hand.late, tempo)}>
        <HandPanel {...hand} tempo={tempo} />
      </BarWord>
    </ControlBar>
  )
}
