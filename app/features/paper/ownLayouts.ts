/**
 * A layout that tunes keep under a name, as a choice in a list and in an address: where a tune
 * keeps none of that name, the usual one stands in.
 */
const OWN = 'own:'
export const ownChoice = (name: string): string => `${OWN}${name}`
/** The name of the kept layout that a choice asks for; null where it asks for another. */
export const ownNameOf = (choice: string): string | null =>
  choice.startsWith(OWN) && choice.length > OWN.length ? choice.slice(OWN.length) : null
