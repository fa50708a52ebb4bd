import type { MarkKind } from '../../../src/core/bench/marking';
import type { PackedMarks } from '../../../src/core/progress/packedMarks';

/** Marks as they go to another thread. */
export function packed(
  marks: readonly { at: string; kind: MarkKind; runs: readonly number[]; sitting?: string }[],
): PackedMarks {
  const sittings = [...new Set(marks.flatMap(({ sitting }) => sitting ?? []))];
  let end = 0;
  return {
    runs: Uint32Array.from(marks.flatMap(({ runs }) => runs)),
    ends: Uint32Array.from(marks, ({ runs }) => (end += runs.length)),
    at: Float64Array.from(marks, ({ at }) => Date.parse(at)),
    lays: Uint8Array.from(marks, ({ kind }) => (kind === 'lay' ? 1 : 0)),
    sitting: Int32Array.from(marks, ({ sitting }) =>
      sitting === undefined ? -1 : sittings.indexOf(sitting),
    ),
    sittings,
  };
}
