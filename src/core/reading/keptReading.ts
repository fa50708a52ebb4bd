import { Refusal } from '../refusal';
import type { Mesh } from './mesh';
import type { Labels, Reading } from './readPhoto';

/** A reading as it is kept and sent: numbers as base64 of little-endian arrays, row by row. */
export interface KeptReading {
  columns: number;
  rows: number;
  cellPx: number;
  /** Two bytes a square: its line. */
  cells: string;
  /** Two bytes a square: the line that it may be else, 0 for none. */
  others: string;
  /** Two bytes a square: doubt in 65,535ths. */
  doubt: string;
  /** Two bytes a square: 1 in a torn region. Empty in readings from before these were looked for. */
  torn: string;
  /** Places of all corners of squares in the photo, x and then y, four bytes each. */
  mesh: string;
}

const DOUBT_STEPS = 65_535;

export function keepReading({
  columns,
  rows,
  cellPx,
  cells,
  others,
  doubt,
  torn,
  mesh,
}: Reading): KeptReading {
  return {
    ...{ columns, rows, cellPx },
    cells: bytesToText(new Uint8Array(cells.buffer, cells.byteOffset, cells.byteLength)),
    others: bytesToText(new Uint8Array(others.buffer, others.byteOffset, others.byteLength)),
    doubt: bytesToText(
      new Uint8Array(Uint16Array.from(doubt, (value) => Math.round(value * DOUBT_STEPS)).buffer),
    ),
    torn: bytesToText(new Uint8Array(Uint16Array.from(torn).buffer)),
    mesh: meshToText(mesh),
  };
}

/** What is needed to put photographs together; the inverse of {@link keepReading}. @throws Refusal when lengths do not fit */
export function labelsOf({
  columns,
  rows,
  cells,
  others,
  doubt,
  torn,
}: Pick<KeptReading, keyof Labels>): Labels {
  const [lines, second, steps, inTorn] = [cells, others, doubt, torn].map(
    (text) => new Uint16Array(bytesFromText(text).buffer),
  );
  const counts = [lines, second, steps, ...(torn === '' ? [] : [inTorn])].map((each) => each!.length);
  if (counts.some((count) => count !== columns * rows))
    throw new Refusal(`A reading of ${columns} × ${rows} squares has another number of squares.`);
  return {
    ...{ columns, rows, cells: lines!, others: second! },
    doubt: Float32Array.from(steps!, (value) => value / DOUBT_STEPS),
    torn: torn === '' ? new Uint8Array(columns * rows) : Uint8Array.from(inTorn!),
  };
}

export function meshToText({ x, y }: Pick<Mesh, 'x' | 'y'>): string {
  const both = new Float32Array(x.length * 2);
  both.set(x);
  both.set(y, x.length);
  return bytesToText(new Uint8Array(both.buffer));
}

/** @throws Refusal when the length does not fit */
export function meshFromText(text: string, columns: number, rows: number): Mesh {
  const bytes = bytesFromText(text);
  const nodes = (columns + 1) * (rows + 1);
  if (bytes.length !== nodes * 2 * Float32Array.BYTES_PER_ELEMENT)
    throw new Refusal(`A mesh of ${columns} × ${rows} squares has another number of corners.`);
  const both = new Float32Array(bytes.buffer);
  return { columns, rows, x: both.slice(0, nodes), y: both.slice(nodes) };
}

export function bytesToText(bytes: Uint8Array): string {
  let text = '';
  // A call takes some ten thousand arguments.
  for (let from = 0; from < bytes.length; from += 8192)
    text += String.fromCharCode(...bytes.subarray(from, from + 8192));
  return btoa(text);
}

/** @throws Refusal where it is no base64 */
export function bytesFromText(text: string): Uint8Array<ArrayBuffer> {
  let plain: string;
  try {
    plain = atob(text);
  } catch {
    throw new Refusal('A part of the reading is no base64.');
  }
  const bytes = new Uint8Array(plain.length);
  for (let i = 0; i < plain.length; i++) bytes[i] = plain.charCodeAt(i);
  // Arrays of two and four bytes are made of it.
  return bytes.length % 2 === 0 ? bytes : bytes.slice(0, -1);
}
