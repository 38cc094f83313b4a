import { barName, beginsBar, meterName, type Bar, type ChartMark } from '../../../core/chart/chart'
import { keyName, type Key } from '../../../core/pitch/key'
import { engravedWords } from '../../../core/chord/engraved'

/**
 * What stands over a bar: section, number, ending, marks, changes of key and metre, and beats that
 * do not add up.
 */
export function BarHead({
  bar,
  movesTo = null,
}: {
  bar: Bar
  /** The key the tune has moved to from here, as it was read. */ movesTo?: Key | null
}) {
  const ending = bar.ending.length > 0 ? `${bar.ending.join(', ')}.` : null
  return (
    <span className={`bar-head${ending ? ' has-ending' : ''}`}>
      {bar.opensSection && <b className="section-letter">{bar.section}</b>}
      <span className="bar-number">{bar.number === 0 ? 'pickup' : bar.number}</span>
      {ending && <b className="ending">{ending}</b>}
      {bar.marks.filter(beginsBar).map((mark) => (
        <MarkSign key={mark} mark={mark} />
      ))}
      {bar.remarks.map((remark, at) => (
        <span key={at} className="remark" title={remark}>
          {remark}
        </span>
      ))}
      {bar.newKey && <b className="bar-change">{engravedWords(keyName(bar.newKey))}</b>}
      {bar.newMeter && <b className="bar-change">{meterName(bar.meter)}</b>}
      {bar.beats !== bar.due && (
        <b className="wrong-beats">
          {bar.beats} of {bar.due} beats
        </b>
      )}
      {movesTo && !bar.newKey && <span className="bar-key">in {engravedWords(keyName(movesTo))}</span>}
      <span className="bar-end">
        {bar.marks
          .filter((mark) => !beginsBar(mark))
          .map((mark) => (
            <MarkSign key={mark} mark={mark} />
          ))}
        {bar.played > 2 && <b>×{bar.played}</b>}
      </span>
    </span>
  )
}

/** A bar for those who listen: its number, and the repeats that are drawn as lines only. */
export const barInWords = ({ number, opensRepeat, played }: Bar): string =>
  [barName(number), opensRepeat && 'repeat begins', played > 0 && 'repeat ends'].filter(Boolean).join(', ')

/** Class names for the bar lines on both sides. */
export const barLines = (bar: Bar): string =>
  [bar.opensRepeat && 'opens-repeat', bar.played > 0 && 'closes-repeat'].filter(Boolean).join(' ')

function MarkSign({ mark }: { mark: ChartMark }) {
  if (mark === 'Segno')
    return (
      <span className="form-sign" role="img" aria-label="Segno">
        𝄋
      </span>
    )
  if (mark === 'Coda')
    return (
      <span className="form-sign" role="img" aria-label="Coda">
        𝄌
      </span>
    )
  return <b className="form-words">{mark}</b>
}
