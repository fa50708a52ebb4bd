import { largest } from '../words/numbers';
import type { SheetRow } from './sheetRow';

/** Rows of a sheet with what heads them. */
interface Headed {
  header: string[] | null;
  rows: SheetRow[];
  blocks: number;
}

/** Blocks that stand side by side, put one below the other; they are known by their headings, or by how they count. */
export function withoutBlocks(header: SheetRow | null, rows: readonly SheetRow[]): Headed {
  const { starts, width } = header ? headedBlocks(header.cells) : countingBlocks(rows);
  if (starts.length < 2) return { header: header?.cells ?? null, rows: [...rows], blocks: 1 };
  return {
    header: header?.cells.slice(starts[0], starts[0]! + width) ?? null,
    rows: starts.flatMap((start) =>
      rows
        .map(({ lineNumber, cells }) => ({ lineNumber, cells: cells.slice(start, start + width) }))
        .filter(({ cells }) => cells.some((cell) => cell !== '')),
    ),
    blocks: starts.length,
  };
}

interface Blocks {
  starts: number[];
  width: number;
}

const NO_BLOCKS: Blocks = { starts: [], width: 0 };

/** Blocks with the same headings. */
function headedBlocks(cells: readonly string[]): Blocks {
  const names = cells.map((name) => name.toLowerCase());
  const first = names.findIndex((name) => name !== '');
  const starts = names.flatMap((name, i) => (name !== '' && name === names[first] ? [i] : []));
  const width = starts.length > 1 ? starts[1]! - starts[0]! : 0;
  const filled = (start: number) => names.slice(start, start + width).filter((name) => name !== '');
  const same = starts.every((start) => filled(start).join('\u0001') === filled(first).join('\u0001'));
  return filled(first).length < 2 || !same ? NO_BLOCKS : { starts, width };
}

/** Blocks without headings, each of which goes on counting where the one before it ends. */
function countingBlocks(rows: readonly SheetRow[]): Blocks {
  const columns = largest(
    rows.map(({ cells }) => cells.length),
    0,
  );
  const counts = Array.from({ length: columns }, (_, i) => counted(rows.map(({ cells }) => cells[i] ?? '')));
  const first = counts.findIndex((count) => count !== null);
  const starts = [first];
  for (let i = first + 1; i < columns; i++) {
    const [last, next] = [counts[starts.at(-1)!], counts[i]];
    if (last && next && next.from === last.to + 1) starts.push(i);
  }
  const width = starts.length > 1 ? starts[1]! - first : 0;
  const isEven = starts.every((start, i) => start === first + i * width);
  return width < 2 || !isEven ? NO_BLOCKS : { starts, width };
}

/** From which number to which a column counts, one by one; null where it does not. */
function counted(values: readonly string[]): { from: number; to: number } | null {
  const filled = values.filter((value) => value !== '');
  const from = Number(filled[0]);
  const counts =
    filled.length > 1 && filled.every((value, i) => /^\d+$/.test(value) && Number(value) === from + i);
  return counts ? { from, to: from + filled.length - 1 } : null;
}
