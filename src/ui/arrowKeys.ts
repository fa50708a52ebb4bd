const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** The step across and down that an arrow key asks for; undefined for other keys. */
export function arrowStep(key: string): readonly [number, number] | undefined {
  return ARROWS[key];
}
