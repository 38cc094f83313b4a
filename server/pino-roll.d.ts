declare module 'pino-roll' {
  import type { EventEmitter } from 'node:events'
  import type { DestinationStream } from 'pino'

  /** Files by number, the oldest let go. @see the package's README */
  export default function build(options: {
    file: string
    size: string
    limit: { count: number }
    mkdir: boolean
    sync: boolean
    maxLength: number
  }): Promise<DestinationStream & EventEmitter>
}
