import { memo } from 'react'
import type { Related } from '../../../workers/searchQuestions'
import { parseChord } from '../../../core/chord/parseChord'
import type { Voicing } from '../../../core/voicing/voicing'
import { ChordName } from '../notation/ChordName'
import { gripInWords } from '../../../core/voicing/inWords'
import { GripDiagram } from '../notation/GripDiagram'

interface Props {
  related: Related | null
  capo?: number
  /** The grip they belong to. */
  now: string
  onTake: (voicing: Voicing, symbol?: string) => void
}

/**
 * Grips that belong to one: easier ones with what is lost, the same type on other strings, its
 * inversions, and the type through a key.
 */
export const RelatedGrips = memo(function RelatedGrips({ related, capo = 0, now, onTake }: Props) {
  if (!related) return <p className="quiet">Looking for grips that belong to it.</p>
  const { easier, otherStrings, inversions, scale } = related
  const button = (voicing: Voicing, label: string, words: React.ReactNode, symbol?: string) => (
    <button
      key={`${label}${voicing.frets.join()}`}
      type="button"
      className="grip-choice"
      aria-pressed={voicing.frets.join() === now}
      aria-label={`${label}: ${gripInWords(voicing, capo)}`}
      onClick={() => onTake(voicing, symbol)}
    >
      <GripDiagram voicing={voicing} capo={capo} />
      <span>{words}</span>
    </button>
  )
  return (
    <>
      {easier.length > 0 && (
        <section aria-label="Easier">
          <h3>Easier</h3>
          <div className="grip-list">
            {easier.map(({ easing, voicing, lost }) =>
              button(
                voicing,
                easing,
                <>
                  {easing}
                  {lost && (
                    <>
                      <br />
                      loses {lost}
                    </>
                  )}
                </>,
              ),
            )}
          </div>
        </section>
      )}
      {inversions.length > 1 && (
        <section aria-label="Inversions">
          <h3>Inversions on these strings, going up</h3>
          <div className="grip-list">
            {inversions.map((voicing, at) => button(voicing, `Inversion ${at + 1}`, '', undefined))}
          </div>
        </section>
      )}
      {otherStrings.length > 0 && (
        <section aria-label="On other strings">
          <h3>Same type on other strings</h3>
          <div className="grip-list">
            {otherStrings.map((voicing) => button(voicing, 'On other strings', ''))}
          </div>
        </section>
      )}
      {scale.length > 0 && (
        <section aria-label="Through the key">
          <h3>This type through the key</h3>
          <div className="grip-list">
            {scale.map(({ symbol, voicing }) => {
              const chord = parseChord(symbol)
              if (!chord.ok) return null
              return voicing ? (
                button(voicing, symbol, <ChordName chord={chord.value} />, symbol)
              ) : (
                <span key={symbol} className="grip-choice quiet">
                  <ChordName chord={chord.value} /> no hand holds it here
                </span>
              )
            })}
          </div>
        </section>
      )}
    </>
  )
})
