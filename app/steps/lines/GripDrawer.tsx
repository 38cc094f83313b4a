import Button from '@mui/material/Button'
import { memo, useMemo, useState } from 'react'
import { useStableCallback } from '../../services/words/stable'
import type { Key } from '../../../core/pitch/key'
import type { Voicing } from '../../../core/voicing/voicing'
import type { NearGrip, Related } from '../../../workers/searchQuestions'
import { SteadyBox } from '../../services/controls/SteadyBox'
import { GripFacts } from '../../services/grips/GripFacts'
import { GripFilters, NO_FILTER, passesFilter, type GripFilter } from '../../services/grips/GripFilters'
import { GripNames } from '../../services/grips/GripNames'
import { RelatedGrips } from '../../services/grips/RelatedGrips'
import { ChordName } from '../../services/notation/ChordName'
import { engraved } from '../../../core/chord/engraved'
import { gripInWords } from '../../../core/voicing/inWords'
import { GripDiagram } from '../../services/notation/GripDiagram'
import type { KnownBook } from '../../services/grips/book'
import type { LineChord, SoundsAs } from '../../../core/tune/decisions'
import { madeChord } from '../../../core/tune/tuneReading'

/** Grips shown at first and added with each "more". */
export const GRIPS_AT_ONCE = 12

interface Props {
  chord: LineChord
  voicing: Voicing | undefined
  /** Null while they are being found. */
  grips: NearGrip[] | null
  /** Null while it is being found. */
  related: Related | null
  capo: number
  songKey: Key
  onFix: (voicing: Voicing | null) => void
  onHear: (voicing: Voicing) => void
  book: KnownBook
  /** The chord keeps another name than the grip sounds, or (null) is called what it sounds. */
  onCall: (symbol: string | null) => void
}

function foundInWords(found: number, of: number): string {
  if (of === 0) return 'No grip of this chord fits your hand and the limits of the line'
  return `${found === of ? 'All' : `${found} of`} ${of} ${of === 1 ? 'grip' : 'grips'}, best here first`
}

/**
 * The grip of the selected chord, what belongs to it, and every other way to hold it, those nearest
 * to the neighbours first.
 */
export const GripDrawer = memo(function GripDrawer({
  chord,
  voicing,
  grips,
  related,
  capo,
  songKey,
  onFix,
  onHear,
  book,
  onCall,
}: Props) {
  // Another chord is looked at from the beginning; the fields themselves stay.
  const [looked, setLooked] = useState({ at: chord.key, shown: GRIPS_AT_ONCE, filter: NO_FILTER })
  const { shown, filter } = looked.at === chord.key ? looked : { shown: GRIPS_AT_ONCE, filter: NO_FILTER }
  const look = useStableCallback((wanted: GripFilter) =>
    setLooked({ at: chord.key, shown: GRIPS_AT_ONCE, filter: wanted }),
  )
  // While grips are being found the fields offer what there was, so that they are not drawn anew
  // twice.
  const offered = useMemo(() => grips?.map((one) => one.voicing) ?? null, [grips])
  const [before, setBefore] = useState<readonly Voicing[]>([])
  if (offered && offered !== before) setBefore(offered)
  const symbol = madeChord(chord)
  if (!symbol) return <p className="quiet">Nothing sounds here.</p>
  const now = voicing?.frets.join() ?? ''
  const found = grips?.filter((one) => passesFilter(one.voicing, filter)) ?? null
  return (
    <>
      <h2>
        <ChordName chord={symbol} />
      </h2>
      {voicing && (
        <div className="present-grip">
          <GripDiagram voicing={voicing} scale={1.6} capo={capo} />
          <GripFacts voicing={voicing} chord={symbol} />
        </div>
      )}
      <div className="drawer-buttons">
        {voicing && <Button onClick={() => onHear(voicing)}>Hear it</Button>}
        {voicing &&
          (book.isKept(symbol.canonical, voicing.frets) ? (
            <span className="in-book">In the grip book</span>
          ) : (
            <Button onClick={() => void book.keep(symbol.canonical, voicing.frets)}>
              Keep in the grip book
            </Button>
          ))}
        <Button disabled={!chord.fixed && !chord.elsewhere} onClick={() => onFix(null)}>
          Let the search choose (Backspace)
        </Button>
      </div>
      {book.trouble && (
        <p className="fault" role="alert">
          {book.trouble}
        </p>
      )}
      {chord.sounding && <SoundingWords sounding={chord.sounding} onCall={onCall} />}
      {chord.elsewhere && (
        <p className="fault">
          The grip you chose here is for other open strings ({chord.elsewhere.replace(' capo 0', '')}) and
          cannot be played on these. It is kept for when you tune back; the search plays another here until
          then.
        </p>
      )}
      <SteadyBox waiting={grips === null || (voicing !== undefined && related === null)}>
        <h3 title="By how far the voices move from and to the neighbours, how easy the grip is, and how usual">
          {grips && found ? foundInWords(found.length, grips.length) : 'Finding grips'}
        </h3>
        <GripFilters grips={offered ?? before} filter={filter} onFilter={look} />
        <div className="grip-list">
          {found?.slice(0, shown).map(({ voicing: other, motion }) => {
            const digit = grips!.findIndex((one) => one.voicing === other)
            return (
              <button
                key={other.frets.join()}
                type="button"
                className="grip-choice"
                aria-pressed={other.frets.join() === now}
                aria-label={`${gripInWords(other, capo)}; voices move ${motion} half steps from and to its neighbours`}
                onClick={() => onFix(other)}
              >
                <kbd>{digit < 9 ? digit + 1 : ''}</kbd>
                <GripDiagram voicing={other} capo={capo} />
                <span title="How far all voices together move from the grip before and to the grip after">
                  {motion === 1 ? 'moves 1 half step' : `moves ${motion} half steps`}
                  {book.isKept(symbol.canonical, other.frets) ? ', in the book' : ''}
                </span>
              </button>
            )
          })}
        </div>
        {found && shown < found.length && (
          <Button onClick={() => setLooked({ at: chord.key, shown: shown + GRIPS_AT_ONCE, filter })}>
            Show {Math.min(GRIPS_AT_ONCE, found.length - shown)} more
          </Button>
        )}
        {voicing && <RelatedGrips related={related} capo={capo} now={now} onTake={onFix} />}
        {voicing && (
          <>
            <h3>It can also be called</h3>
            <GripNames midis={voicing.midis} songKey={songKey} />
          </>
        )}
      </SteadyBox>
      <p className="quiet caution">
        Stop when it hurts. Wide stretches and hard barres tire a hand: near its limit the reach stands under
        the grip, and an easier grip is in the list.
      </p>
    </>
  )
})

/**
 * What a grip by hand sounds where it is not the chord it was put in for, and the other name it can
 * have.
 */
function SoundingWords({
  sounding: { meant, named, foreign, missing, byPlayer },
  onCall,
}: {
  sounding: SoundsAs
  onCall: (symbol: string | null) => void
}) {
  const apart = [
    ...(foreign.length > 0
      ? [`${foreign.map(engraved).join(', ')} not of ${engraved(meant.canonical)}`]
      : []),
    ...(missing.length > 0 ? [`no ${missing.map(engraved).join(', ')} of it`] : []),
  ].join('; ')
  return (
    <p className="sounding" role="note">
      {byPlayer ? (
        <>
          You call it {engraved(meant.canonical)}; what sounds is{' '}
          {named ? <ChordName chord={named} /> : 'no usual chord'} ({apart}).{' '}
          {named && (
            <Button size="small" onClick={() => onCall(null)}>
              Call it {engraved(named.canonical)}
            </Button>
          )}
        </>
      ) : (
        <>
          The grip was put in for <ChordName chord={meant} /> and sounds{' '}
          {named ? <ChordName chord={named} /> : 'no usual chord'} ({apart}).{' '}
          <Button size="small" onClick={() => onCall(meant.canonical)}>
            Keep calling it {engraved(meant.canonical)}
          </Button>
        </>
      )}
    </p>
  )
}
