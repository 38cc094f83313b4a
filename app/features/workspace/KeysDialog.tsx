import Dialog from '@mui/material/Dialog'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'

/** Keys that work everywhere, then those of the Chart step. */
const KEYS: readonly (readonly [string, string])[] = [
  ['Space', 'Play or stop'],
  ['← →', 'Chord before, chord after'],
  ['Shift ← →', 'Stretch the selection (it is what is played and looped)'],
  ['Escape', 'Select only the present chord; close what is open'],
  ['0 to 9', 'Colour: try that option, heard where it would stand. Lines: 1 to 9 take that grip'],
  ['↑ ↓', 'Colour: hear the options one after the other'],
  ['Enter', 'Colour: keep what is tried or heard'],
  ['Backspace', 'Colour: the plain chord again. Lines: the grip is left to the search again'],
  ['P  N  B  V', 'Hear the plain version, the new one, both in turn, the new one and the version beside it. On the Chart step B and N with Alt'],
  ['L', 'Loop on or off'],
  ['C', 'Count-in on or off. On the Chart step Alt C'],
  ['Alt 1 2 3 4', 'Chart, Colour, Lines, Melody'],
  ['Ctrl Z', 'Undo'],
  ['Ctrl Shift Z', 'Redo'],
  ['?', 'This list'],
  ['↑ ↓', 'Lines: take hold of the top or lowest note; then pull it'],
  ['Shift ↑ ↓', 'Lines: hold the next voice'],
  ['Enter, Escape', 'Lines: keep what was pulled (the other grips stay), or put the note back'],
  ['Shift with Enter or 1 to 9', 'Lines: the same, and the rest of the line is led anew around it'],
  ['R', 'Lines: lead the rest anew, or hold every grip as it is'],
  ['K', 'Lines: the neck shown or hidden. Melody: the threads shown or hidden'],
  ['← →', 'Melody: note before, note after, heard with what is under it'],
  ['↑ ↓, Enter', 'Melody: hear what the note could have under it; keep it'],
  ['1 to 9, Backspace', 'Melody: take that grip; leave it to the search again'],
  ['E', 'Melody: write notes; Escape leaves'],
  ['A to G, R', 'While writing: that note nearest to the last, a rest'],
  ['1 to 5, .  T', 'While writing: whole to sixteenth; dotted; triplet'],
  ['↑ ↓, Shift ↑ ↓', 'While writing: the last note a half step, an octave'],
  ['=, Backspace, ← → Home End', 'While writing: the last note longer, taken out; the place moved'],
  ['A S D F …, W E T …', 'While playing in: white and black keys; Z and X change the octave, Space ends'],
  ['Alt G', 'Chart: select the group around the chord (ii-V, turnaround, …), then the next'],
  ['W', 'Chart: every reason shown or hidden'],
  ['A to G, N, or Enter', 'Chart: type a chord (or N.C.) on the beat of the selected one'],
  ['Space or Tab, Shift Tab', 'While typing a beat: take it and go a beat on, or back'],
  ['Enter, Escape', 'While typing a beat: take it, or leave it as it was'],
  ['Alt I, Alt Shift I', 'Chart: a bar put in behind, before'],
  ['Alt S  Alt J', 'Chart: split the bar in two, join it with the next'],
  ['[  ]', 'Chart: move the selected bars earlier, later'],
  ['−  +', 'Chart: the selected bars a half step down, up'],
  ['Ctrl C  Ctrl X  Ctrl V', 'Chart: copy, cut, paste bars'],
  ['Delete', 'Chart: take the selected bars out'],
]

export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="keys-title">
      <DialogTitle id="keys-title" component="h2">Keys</DialogTitle>
      <DialogContent tabIndex={0}>
        <p className="quiet">A foot switch that types a key works too: Space is play and stop.</p>
        <table className="keys"><tbody>{KEYS.map(([key, says]) => <tr key={key}><th scope="row"><kbd>{key}</kbd></th><td>{says}</td></tr>)}</tbody></table>
      </DialogContent>
    </Dialog>
  )
}
