import { firstOf, itemAt } from '../lists'
import { parseChart } from '../chart/parseChart'
import { parseChord } from '../chord/parseChord'
import { lineOf } from '../leading/line'
import { weightsFrom } from '../leading/weights'
import { blocksOnOneSet, scaleFrom } from '../melody/block'
import { endsOf } from '../melody/ends'
import { harmonise } from '../melody/harmonise'
import { SILENT, type HarmonisedNote } from '../melody/melodyLine'
import { MELODY_TEXTURES, type MelodyTexture } from '../melody/melodyTextures'
import { harmonisedSixthDiminished } from '../melody/sixthDiminished'
import { scaleNotes } from '../pitch/key'
import { noteName, pitchName } from '../pitch/note'
import { good } from '../result'
import { limitsFrom, MELODY_FRETS } from './requestLimits'
import { chordsOfChart, lineAnswer, tidy, voicingAnswer } from './parts'
import type { AnswersTo } from './answersTo'

/** Answers about melodies. */
export const MELODY_ANSWERS: AnswersTo<'harmonise' | 'scale' | 'ends'> = {
  harmonise(
    {
      text,
      melody,
      style = 'smooth',
      limits: input,
      count = 1,
      density,
      texture,
      times,
      tempo = times?.tempo,
    },
    onProgress,
  ) {
    // A melody needs room above the first twelve frets, unless the player says otherwise.
    const limits = limitsFrom({
      ...input,
      frets: input?.frets ?? [0, MELODY_FRETS],
      open: input?.open ?? true,
    })
    if (!limits.ok) return limits
    const chart = parseChart(text)
    const chords = chordsOfChart(chart)
    if (!chords.ok) return chords
    const found = harmonise({
      onProgress,
      chart,
      melody,
      limits: limits.value,
      style,
      count,
      ...(density ? { density } : {}),
      ...(texture ? { texture } : {}),
      ...(tempo ? { tempo } : {}),
    })
    if (!found.ok) return found
    return good({
      lines: found.value.map(({ cost, notes }) => {
        const over = notes.map(({ chord }) => chord ?? SILENT)
        const line = lineOf(
          notes.map(({ voicing }) => voicing),
          { chords: over, weights: weightsFrom(style), limits: limits.value },
        )
        const answer = lineAnswer(line, over)
        return {
          ...answer,
          cost: tidy(cost),
          voicings: answer.voicings.map((voicing, at) => {
            const { note, under, kind, bar, beat, beats } = itemAt(notes, at)
            return {
              ...voicing,
              under,
              kind,
              bar,
              beat: tidy(beat),
              beats: tidy(beats),
              melody: note && pitchName(note.note),
              ...whyOther(texture ?? 'full', itemAt(notes, at)),
            }
          }),
        }
      }),
      leftOut: (found.value[0]?.leftOut ?? []).map(({ note, bar, beat, message, accepted }) => ({
        bar,
        beat: tidy(beat),
        melody: note && pitchName(note.note),
        why: message,
        wouldHelp: accepted,
      })),
      left: melody.length - new Set(found.value[0]?.notes.flatMap(({ note }) => note ?? [])).size,
    })
  },

  scale(request) {
    const { limits: input } = request
    const limits = limitsFrom({
      ...input,
      frets: input?.frets ?? [0, MELODY_FRETS],
      open: input?.open ?? true,
    })
    if (!limits.ok) return limits
    if (request.kind !== 'sixth-diminished') {
      // From the tonic in the octave where the guitar sings; or the fragment as given.
      const block =
        request.kind === 'sevenths'
          ? ({
              kind: request.kind,
              key: request.key,
              tone: request.tone ?? 1,
              family: request.family ?? 'drop 2',
            } as const)
          : { kind: request.kind, key: request.key }
      const scales = request.notes
        ? [request.notes]
        : SCALE_OCTAVES.map((octave) => scaleFrom([...scaleNotes(request.key), request.key.tonic], octave))
      const tried = scales.map((notes) => ({ notes, blocks: blocksOnOneSet(notes, block, limits.value) }))
      const { notes, blocks } = tried.find((one) => one.blocks.ok) ?? firstOf(tried)
      return blocks.ok
        ? good({
            scale: notes.map(noteName),
            voicings: blocks.value.map(({ chord, kind, note, voicing }) => ({
              symbol: chord.canonical,
              note: pitchName(note),
              kind,
              ...voicingAnswer(voicing),
            })),
          })
        : blocks
    }
    const symbol = parseChord(request.chord)
    if (!symbol.ok) return symbol
    const found = harmonisedSixthDiminished(symbol.value, limits.value)
    if (!found.ok) return found
    const { steps, line } = found.value
    return good({
      scale: steps.map(({ note }) => noteName(note)),
      voicings: line.voicings.map((voicing, at) => ({
        symbol: itemAt(steps, at).chord.canonical,
        note: noteName(itemAt(steps, at).note),
        ...voicingAnswer(voicing),
      })),
    })
  },

  ends({ key }) {
    return good({ ends: endsOf(key) })
  },
}

/** Why a grip is not in the layout asked for, where it is not. */
function whyOther(texture: MelodyTexture, { voicing, chord, note, under }: HarmonisedNote): { why?: string } {
  const { families } = MELODY_TEXTURES[texture]
  if (!families || under !== 'chord' || families.some((family) => voicing.families.includes(family)))
    return {}
  return {
    why: `No hand holds ${chord?.canonical ?? 'this'}${note ? ` under ${pitchName(note.note)}` : ''} in ${texture}, not with a free tension either: the nearest grip stands there.`,
  }
}

/** Octaves in which a scale begins, the usual one first. */
const SCALE_OCTAVES = [4, 3]
