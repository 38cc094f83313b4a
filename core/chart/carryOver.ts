import { itemAt } from '../lists'
import { slotKey, type Slot } from './chart'

/**
 * When the plain chart is edited, what the player made on its chords moves with the chords: the
 * longest common run of equal symbols decides which old slot each new slot continues.
 * @returns for each old slot key the new one; old slots that are gone have no entry
 */
export function carryOver(before: readonly Slot[], after: readonly Slot[]): Map<string, string> {
  const moved = new Map<string, string>()
  const same = (a: number, b: number) => itemAt(before, a).text === itemAt(after, b).text
  let head = 0
  while (head < before.length && head < after.length && same(head, head)) head += 1
  let tail = 0
  while (
    tail < before.length - head &&
    tail < after.length - head &&
    same(before.length - 1 - tail, after.length - 1 - tail)
  )
    tail += 1

  const pair = (a: number, b: number) => moved.set(slotKey(itemAt(before, a)), slotKey(itemAt(after, b)))
  for (let i = 0; i < head; i += 1) pair(i, i)
  for (let i = 1; i <= tail; i += 1) pair(before.length - i, after.length - i)

  const rows = before.length - head - tail
  const columns = after.length - head - tail
  // longest[i][j]: most slots kept among before[head+i…] and after[head+j…]
  const longest = Array.from({ length: rows + 1 }, () => new Uint16Array(columns + 1))
  for (let i = rows - 1; i >= 0; i -= 1)
    for (let j = columns - 1; j >= 0; j -= 1)
      itemAt(longest, i)[j] = same(head + i, head + j)
        ? itemAt(longest, i + 1)[j + 1]! + 1
        : Math.max(itemAt(longest, i + 1)[j]!, itemAt(longest, i)[j + 1]!)
  let i = 0
  let j = 0
  while (i < rows && j < columns) {
    if (same(head + i, head + j)) {
      pair(head + i, head + j)
      i += 1
      j += 1
    } else if (itemAt(longest, i + 1)[j]! >= itemAt(longest, i)[j + 1]!) i += 1
    else j += 1
  }
  return moved
}
