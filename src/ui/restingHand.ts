/**
 * A finger or pen that rests where one draws or marks asks for no menu; some systems open one over the work when it is
 * lifted. A mouse has its menu there as anywhere.
 */
export function watchRestingHand(target: Pick<Window, 'addEventListener'>): void {
  target.addEventListener('contextmenu', (event) => {
    const byHand = event.pointerType === 'touch' || event.pointerType === 'pen';
    if (byHand && event.target instanceof Element && event.target.closest('.touch-none'))
      event.preventDefault();
  });
}
