import type { ChangedPart } from '../../server/live/contract';

/** What of a canvas a page may show. */
export type LivePart = ChangedPart | 'marks';

/** Which parts of a canvas this page shows live, so that nobody is told of them once more. */
export class ShownParts {
  private readonly counts = new Map<LivePart, number>();

  /** @returns takes them away again */
  add(parts: readonly LivePart[]): () => void {
    for (const part of parts) this.counts.set(part, (this.counts.get(part) ?? 0) + 1);
    return () => {
      for (const part of parts) this.counts.set(part, this.counts.get(part)! - 1);
    };
  }

  has(part: LivePart): boolean {
    return (this.counts.get(part) ?? 0) > 0;
  }
}

const byCanvas = new Map<string, ShownParts>();

/** Those of a canvas on this page. */
export function theShown(canvasId: string): ShownParts {
  const known = byCanvas.get(canvasId);
  if (known) return known;
  const fresh = new ShownParts();
  byCanvas.set(canvasId, fresh);
  return fresh;
}
