import Dialog from '@mui/material/Dialog'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'

const KEYS: readonly (readonly [string, string])[] = [
  ['Space', 'Play or stop'],
  ['← →', 'Chord before, chord after'],
  ['Shift ← →', 'Stretch the selection (it is what is played and looped)'],
  ['Escape', 'Select only the present chord; close what is open'],
  ['0 to 9', 'Colour: take that option. Lines: 1 to 9 take that grip'],
  ['Backspace', 'Give the chord, or its grip, back'],
  ['P  N  B', 'Hear the plain version, the new one, both in turn'],
  ['L', 'Loop on or off'],
  ['C', 'Count-in on or off'],
  ['Alt 1 2 3', 'Chart, Colour, Lines'],
  ['Ctrl Z', 'Undo'],
  ['Ctrl Shift Z', 'Redo'],
  ['?', 'This list'],
]

export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="keys-title">
      <DialogTitle id="keys-title" component="h2">Keys</DialogTitle>
      <DialogContent>
        <p className="quiet">A foot switch that types a key works too: Space is play and stop.</p>
        <table className="keys"><tbody>{KEYS.map(([key, says]) => <tr key={key}><th scope="row"><kbd>{key}</kbd></th><td>{says}</td></tr>)}</tbody></table>
      </DialogContent>
    </Dialog>
  )
}
