/** Whether the finger, the pen's tip or the main button of the mouse is still down. */
export function isPressed({ buttons }: Pick<PointerEvent, 'buttons'>): boolean {
  return (buttons & 1) !== 0;
}
