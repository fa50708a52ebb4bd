/** The logistic distribution at evenly spaced chances. */
export const LOGISTIC = Float64Array.from({ length: 4096 }, (_, i) => {
  const chance = (i + 0.5) / 4096;
  return Math.log(chance / (1 - chance));
});

/** Where noise begins: it follows from the region alone, so that the same region always gets the same plan. */
export const FIRST_DRAWN = 0x9e3779b9 | 0;

/** Standard logistic, drawn from a table: xorshift (Marsaglia 2003) chooses the entry. */
export class LogisticNoise {
  private drawn = FIRST_DRAWN;

  restart(): void {
    this.drawn = FIRST_DRAWN;
  }

  next(): number {
    let state = this.drawn;
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    this.drawn = state;
    return LOGISTIC[state & (LOGISTIC.length - 1)]!;
  }
}
