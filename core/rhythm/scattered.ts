/**
 * A number from 0 to 1 that depends on nothing but what is given: the same seed and place always
 * give the same one.
 */
export function scattered(seed: number, place: number, which: number): number {
  let mixed =
    Math.imul(seed ^ 0x9e3779b9, 0x85ebca6b) ^
    Math.imul(place + 1, 0xc2b2ae35) ^
    Math.imul(which + 1, 0x27d4eb2f)
  mixed = Math.imul(mixed ^ (mixed >>> 15), 0x2c1b3c6d)
  return ((mixed ^ (mixed >>> 13)) >>> 0) / 2 ** 32
}
