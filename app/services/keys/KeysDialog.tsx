import Dialog from '@mui/material/Dialog'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import type { KeyRow } from './keyTable'

interface Props {
  open: boolean
  onClose: () => void
  /** Tables of keys with what they belong to: the present room, and everywhere. */
  tables: readonly { name: string; rows: readonly KeyRow[] }[]
}

/** What keys do here: the very tables that are listened to. */
export function KeysDialog({ open, onClose, tables }: Props) {
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="keys-title">
      <DialogTitle id="keys-title" component="h2">
        Keys
      </DialogTitle>
      <DialogContent tabIndex={0}>
        <p className="quiet">A foot switch that types a key works too: Space is play and stop.</p>
        {tables.map(
          ({ name, rows }) =>
            rows.length > 0 && (
              <section key={name} aria-label={name}>
                <h3>{name}</h3>
                <table className="keys">
                  <tbody>
                    {rows.map(({ shown, says }) => (
                      <tr key={`${shown}${says}`}>
                        <th scope="row">
                          <kbd>{shown}</kbd>
                        </th>
                        <td>{says}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </section>
            ),
        )}
      </DialogContent>
    </Dialog>
  )
}
