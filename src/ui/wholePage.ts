/** A page on a slow line may take so long before it is said that a part of it is missing. */
const PATIENCE_MS = 8000;
const LOOKS_EVERY_MS = 500;

/**
 * Shows a slip while parts of the page have not come to life, and hides it when they have. A part whose program did not
 * arrive says so nowhere itself.
 * @param slip with a button that loads the page again
 * @param again what the button does
 * @returns ends it
 */
export function watchForMissingParts(slip: HTMLElement, again: () => void): () => void {
  slip.querySelector('button')?.addEventListener('click', again);
  const began = performance.now();
  const looking = setInterval(() => {
    // An island bears this mark until it stands.
    const whole = !document.querySelector('astro-island[ssr]');
    slip.hidden = whole || performance.now() - began < PATIENCE_MS;
    if (whole) clearInterval(looking);
  }, LOOKS_EVERY_MS);
  return () => clearInterval(looking);
}
