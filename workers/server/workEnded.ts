/**
 * The work was ended: it took too long or too much memory, or too much else waits. The message says
 * so to a player.
 */
export class WorkEnded extends Error {
  override name = 'WorkEnded'
}
