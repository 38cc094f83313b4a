import Button from '@mui/material/Button'
import { useHindrance } from '../../services/offline/useHindrance'

/** How other devices of the home network reach this songbook; told to the page by the server. */
export interface OnNetwork {
  address: string
  /** The address as an SVG picture that a camera reads. */
  qr: string
  /** This page was asked for from the network, by a device that has signed in. */
  signedIn: boolean
}

export function NetworkSection({ onNetwork }: { onNetwork: OnNetwork | null }) {
  return (
    <section aria-labelledby="network">
      <h2 id="network">On other devices</h2>
      {onNetwork ? <Reached {...onNetwork} /> : <NotServed />}
    </section>
  )
}

function NotServed() {
  return (
    <p>
      Only this machine is served now. For a tablet on the stand, in the same home network: set a passphrase
      once with <code>./heron passphrase</code>, then start with <code>./start --lan</code>. The address and a
      picture of it to point a camera at stand here then.
    </p>
  )
}

function Reached({ address, qr, signedIn }: OnNetwork) {
  const hindered = useHindrance()
  return (
    <div className="network">
      <img
        className="network-code"
        src={`data:image/svg+xml,${encodeURIComponent(qr)}`}
        alt={`${address} to point a camera at`}
        width={168}
        height={168}
      />
      <div>
        <p>
          <a href={address}>{address}</a>
        </p>
        <p>
          Devices of this network sign in with the passphrase and stay signed in for 30 days. The first time
          the browser warns of the certificate, which this machine made itself: go on.
        </p>
        <p>
          A device that is told to trust it once is warned no more, can install the songbook like a program,
          and keeps the tunes that were open for reading without the network:{' '}
          <a href="/certificate" download>
            take the certificate
          </a>
          , open it on that device, and add it to the certificates it trusts. Its key stays on this machine.
        </p>
        {hindered && signedIn && <p role="status">{hindered}</p>}
        <div className="settings-row">
          {signedIn && (
            <form method="post" action="/sign-out">
              <Button type="submit" variant="outlined">
                Sign out this device
              </Button>
            </form>
          )}
          <form method="post" action="/sign-out-everywhere">
            <Button type="submit" variant="outlined">
              Sign out everywhere
            </Button>
          </form>
        </div>
      </div>
    </div>
  )
}
