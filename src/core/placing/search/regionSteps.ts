import type { BarTable } from './barTable';

/**
 * The steps of the search in one region at a time: labels that are tried, and prices λ of its cells. They exist twice and
 * come to the same numbers: in WebAssembly, which takes a fraction of the time ({@link KernelSteps}), and in TypeScript
 * ({@link PlainSteps}).
 */
export interface RegionSteps {
  /** What follows is of this region. What was tried or priced in another one is gone. */
  begin(region: number, table: BarTable): void;
  /** @param labels of the region, from now on those that are tried */
  tryOut(labels: Uint8Array): void;
  /** The labels that are tried; of no use after another step. */
  tried(): Uint8Array;
  /** What they cost. */
  cost(): number;
  /** Noise begins as it always does. */
  restartNoise(): void;
  /** Each row in turn gets the best labels that the columns above and below leave it. @param heat of the noise; 0 for none */
  moveRows(heat: number): void;
  /** As `moveRows`, for columns. */
  moveColumns(heat: number): void;
  /** Rows of a number that change together, and then columns, see {@link BandMoves}. @param height how many */
  moveBands(height: number, heat: number): void;
  /** @param lambda prices of the region, from now on those of the messages */
  price(lambda: Float32Array): void;
  /** The prices; of no use after another step. */
  priced(): Float32Array;
  /** Messages there: set λ by what comes from before and from behind, and label greedily. */
  passOn(): void;
  /** Messages back: the same from the other side, without labels. @param update whether λ is set; else the messages alone are */
  passBack(update: boolean): void;
  /** What the prices prove, in parts, see {@link boundOf}. */
  bound(): number;
}
