import { colourRange, kindOf, runShares } from '../../core/chart/kind';
import { shadePairs } from '../../core/symbols/check';
import type { ChartParts } from './chartFiles';
import type { KindView } from './contract';

/** What a canvas is like to work. */
export function chartKind({ chart, legend }: ChartParts): KindView {
  const kind = kindOf(chart);
  const { inWords, confetti, blocks, heat } = kind;
  return {
    inWords,
    confetti,
    blocks,
    runs: runShares(kind).map(({ length, orLonger, ...rest }) => ({
      ...rest,
      length: orLonger ? `${length} and more` : String(length),
    })),
    heat: { ...heat, colours: [...heat.colours] },
    ...colourRange(heat),
    shades: shadePairs(legend, chart),
  };
}
