/** Surface of a drill. */
export const FINISHES = ['plain', 'iridescent', 'metallic', 'glow', 'translucent', 'crystal'] as const;
export type Finish = (typeof FINISHES)[number];

const SAID_AS: Record<Finish, readonly string[]> = {
  plain: ['', 'plain', 'normal', 'standard', 'regular', 'matte', 'solid', '-'],
  iridescent: ['iridescent', 'ab', 'aurora', 'rainbow'],
  metallic: ['metallic', 'metal', 'electro'],
  glow: ['glow', 'glow in the dark', 'luminous'],
  translucent: ['translucent', 'transparent', 'clear'],
  crystal: ['crystal', 'gem', 'rhinestone'],
};

/**
 * Reads a finish as people write it; null when the word is unknown.
 * @example readFinish('AB') // 'iridescent'
 */
export function readFinish(text: string): Finish | null {
  const said = text.trim().toLowerCase();
  return FINISHES.find((finish) => SAID_AS[finish].includes(said)) ?? null;
}
