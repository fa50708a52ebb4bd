/** A device that may use the shelf over the home network. */
export interface Device {
  id: string;
  /** As its owner calls it: “Tablet”. */
  name: string;
}

/** What the machine on which Oculent runs is called until somebody gives it another name. */
export const USUAL_DESK_NAME = 'Desk';
export const MOST_NAME_CHARACTERS = 40;
const LEAST_PASSPHRASE_CHARACTERS = 12;
/** A device that is not used for so long has to join again. */
export const SIGNED_IN_DAYS = 90;

/** What to call a device that has no name yet. @param agent what its browser says of itself */
export function suggestedName(agent: string): string {
  if (/iPad|Tablet|Android(?!.*Mobile)/i.test(agent)) return 'Tablet';
  return /iPhone|Mobile/i.test(agent) ? 'Phone' : 'Computer';
}

/** A name that no other device has: the one that is wished for, or with a number behind it. @param taken names of the others */
export function freeName(wish: string, taken: readonly string[]): string {
  const known = new Set(taken.map((name) => name.toLowerCase()));
  for (let n = 1; ; n++) {
    const name = n === 1 ? wish : `${wish} ${n}`;
    if (!known.has(name.toLowerCase())) return name;
  }
}

/** Why a passphrase will not do; null for a good one. */
export function faultInPassphrase(text: string): string | null {
  return [...text.normalize('NFC')].length < LEAST_PASSPHRASE_CHARACTERS
    ? `A passphrase has ${LEAST_PASSPHRASE_CHARACTERS} characters or more: four or five words that do not belong together are easy to keep.`
    : null;
}

/** Names in a sentence: “the tablet”, “the tablet and the desk”. */
export function otherScreensInWords(names: readonly string[]): string {
  const each = names.map((name) => `“${name}”`);
  return each.length < 2 ? (each[0] ?? '') : `${each.slice(0, -1).join(', ')} and ${each.at(-1)}`;
}
