import Button from '@mui/material/Button'
import { FILE_ENDINGS, FORMATS, namesInWords, READ_FORMATS, SONGBOOK_FORMATS } from '../../core/formats/names'
import { BringTunes } from '../features/files/BringTunes'
import { RestoreBackup } from '../features/files/RestoreBackup'
import { PageHead } from '../theme/PageHead'
import type { Route } from './+types/files'

export const meta: Route.MetaFunction = () => [{ title: 'Files · Yellow Heron' }]

/** All of the book in one file, out of it again, and tunes from elsewhere. */
export default function FilesPage() {
  return (
    <main className="page songbook files-page">
      <PageHead title="Files" />
      <section aria-labelledby="files-backup">
        <h2 id="files-backup">Backup</h2>
        <p>
          Tunes with everything made of them, deleted ones too, the grip book, the player, the log and the
          sets, in one open file: a zip of JSON and chart text.
        </p>
        <p className="files-acts">
          <Button component="a" variant="contained" color="primary" href="/files/backup?history=yes" download>
            Save a backup
          </Button>
          <Button component="a" href="/files/backup" download>
            Without the steps of undo (smaller)
          </Button>
        </p>
      </section>
      <section aria-labelledby="files-restore">
        <h2 id="files-restore">Restore</h2>
        <p>
          Nothing that is in this book is changed or taken away: tunes that are the same are known, and one
          that has become another since stands beside yours.
        </p>
        <RestoreBackup />
      </section>
      <section aria-labelledby="files-tunes">
        <h2 id="files-tunes">Tunes from elsewhere</h2>
        <p>{namesInWords(READ_FORMATS)}; several tunes in one file, several files, or a zip of them.</p>
        <BringTunes endings={FILE_ENDINGS} />
      </section>
      <section aria-labelledby="files-out">
        <h2 id="files-out">The songbook for other programs</h2>
        <p className="files-acts">
          {SONGBOOK_FORMATS.map((name) => (
            <Button key={name} component="a" href={`/files/songbook/${name}`} download>
              All tunes as {FORMATS[name].label}
            </Button>
          ))}
        </p>
      </section>
    </main>
  )
}
