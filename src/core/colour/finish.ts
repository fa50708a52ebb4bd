import { withoutAccents } from '../words/withoutAccents';

/** Surface of a drill. */
export const FINISHES = ['plain', 'iridescent', 'metallic', 'glow', 'translucent', 'crystal'] as const;
export type Finish = (typeof FINISHES)[number];

/** In English first, then in other languages of sheets: words of their dictionaries, from memory. */
const SAID_AS: Record<Finish, string> = {
  plain:
    ', -, plain, normal, standard, regular, matte, solid, matt, mat, mate, normale, opaco, gewoon, zwykły, matowy, ' +
    'обычный, матовый, 普通, 通常',
  iridescent:
    'iridescent, ab, aurora, rainbow, irisierend, schillernd, irisé, nacré, iridiscente, iridescente, tornasol, ' +
    'iriserend, opalizujący, перламутр, перламутровый, ab色',
  metallic:
    'metallic, metal, electro, metallisch, métallique, métallisé, metálico, metalizado, metallico, metaliczny, ' +
    'металлик, металлический, 金属, 金屬',
  glow:
    'glow, glow in the dark, luminous, leuchtend, nachtleuchtend, phosphorescent, fosforescente, lichtgevend, ' +
    'świecący, светящийся, 夜光, 蓄光',
  translucent:
    'translucent, transparent, clear, durchsichtig, translucide, translúcido, transparente, traslucido, trasparente, ' +
    'doorschijnend, przezroczysty, прозрачный, 透明',
  crystal: 'crystal, gem, rhinestone, kristall, cristal, cristallo, kristal, kryształ, кристалл, 水晶',
};
const FINISH_OF = new Map(
  FINISHES.flatMap((finish) =>
    SAID_AS[finish].split(', ').map((word) => [withoutAccents(word), finish] as const),
  ),
);

/**
 * Reads a finish as people write it; null when the word is unknown.
 * @example readFinish('AB') // 'iridescent'
 */
export function readFinish(text: string): Finish | null {
  return FINISH_OF.get(withoutAccents(text.trim())) ?? null;
}
