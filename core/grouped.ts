/** Things by what they have in common, in their order. */
export function groupedBy<Thing, Key>(
  things: Iterable<Thing>,
  keyOf: (thing: Thing) => Key,
): Map<Key, Thing[]> {
  const groups = new Map<Key, Thing[]>()
  for (const thing of things) {
    const group = groups.get(keyOf(thing))
    if (group) group.push(thing)
    else groups.set(keyOf(thing), [thing])
  }
  return groups
}
