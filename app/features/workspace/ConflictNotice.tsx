import Button from '@mui/material/Button'

/** Said to the tab that wrote second. Both ways out keep both tabs' work. */
export function ConflictNotice({ onMine, onCopy }: { onMine: () => void; onCopy: () => void }) {
  return (
    <div className="notice" role="alert">
      <p><b>This tune was changed in another tab.</b> What you made here is not written over it, and is not lost: choose how to keep it.</p>
      <Button onClick={onMine}>Put mine on top (the other stays in undo)</Button>
      <Button onClick={onCopy}>Keep mine as a copy, show the other</Button>
    </div>
  )
}
