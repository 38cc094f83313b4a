import Button from '@mui/material/Button'

interface Props {
  /** Why what was chosen could not be done. */
  trouble: string | undefined
  onMine: () => void
  onCopy: () => void
  onFile: () => void
}

/** Said to the tab that wrote second. All ways out keep both tabs' work. */
export function ConflictNotice({ trouble, onMine, onCopy, onFile }: Props) {
  return (
    <div className="notice" role="alert">
      <p>
        <b>This tune was changed in another tab.</b> What you made here is not written over it, and is not
        lost: choose how to keep it.
      </p>
      {trouble && <p className="fault">{trouble}</p>}
      <Button onClick={onMine}>Put mine on top (the other stays in undo)</Button>
      <Button onClick={onCopy}>Keep mine as a copy, show the other</Button>
      <Button onClick={onFile}>Save mine as a file</Button>
    </div>
  )
}
