import { LRUCache } from 'lru-cache'

/** Pictures kept, at most: the systems of two long tunes. A picture is about 50 kB. */
const MOST_PICTURES = 40

/**
 * Pictures that took time to draw, by what is drawn in them, to be put in again when the same is
 * shown anew.
 */
export class DrawnBefore<Picture extends Pick<Node, 'isConnected'>> {
  private readonly pictures: LRUCache<string, Picture>

  /**
   * @param most pictures that are kept; beyond it the one that was not shown for longest is let go
   */
  constructor(most = MOST_PICTURES) {
    this.pictures = new LRUCache({ max: most })
  }

  /** A picture of this that is not shown at present. */
  take(what: string): Picture | null {
    const picture = this.pictures.get(what)
    return picture && !picture.isConnected ? picture : null
  }

  keep(what: string, picture: Picture): void {
    this.pictures.set(what, picture)
  }
}
