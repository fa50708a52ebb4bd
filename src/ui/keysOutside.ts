/** Where letters are typed, or keys mean something of their own. */
const FIELD = 'input, textarea, select, [contenteditable="true"], [role="application"], dialog';
/** Where Space, Enter and arrows already do something. */
const PRESSABLE = 'button, a, summary, [role="radio"], [tabindex]:not([tabindex="-1"])';

/** What a foot pedal sends; on a button these keys mean nothing. */
const PAGING: ReadonlySet<string> = new Set(['PageDown', 'PageUp']);

/**
 * Whether a key that was pressed somewhere on the page may act on the station's picture. Letters do wherever no text is
 * typed; Space, Enter and arrows only where nothing else has the focus.
 */
export function isForThePicture({ target, key, ctrlKey, metaKey, altKey }: KeyboardEvent): boolean {
  if (ctrlKey || metaKey || altKey || !(target instanceof Element)) return false;
  if (target.closest(FIELD) || document.querySelector('dialog[open]')) return false;
  const isLetter = key.length === 1 && key !== ' ';
  return isLetter || PAGING.has(key) || !target.closest(PRESSABLE);
}
