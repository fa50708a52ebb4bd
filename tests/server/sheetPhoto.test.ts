import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { seededRandom } from '../../src/core/chance/random';
import { readSheetLines } from '../../src/core/checkin/sheetLines';
import { doubtfulEntries } from '../../src/core/reading/sheetChecks';
import { readSheetPhoto } from '../../src/server/reading/sheetPhoto';
import type { SimulatedPhoto } from '../../src/server/reading/simulated';
import { simulatedSheet } from '../../src/server/reading/simulatedSheet';
import { line } from '../core/samples';

const random = seededRandom(7);
/** A list as kits have it: numbered, bags of 200 and some to spare. */
const LEGEND = Array.from({ length: 12 }, (_, i) => {
  const drills = 60 + Math.floor(random.uniform() * 2400);
  return line(i + 1, {
    keyNumber: String(i + 1),
    code: String(300 + Math.floor(random.uniform() * 3500)),
    name: ['Moss', 'Ember', 'Pale dusk', 'River stone', 'Old rose'][i % 5]!,
    neededDrills: drills,
    packets: Math.ceil((drills * 1.1) / 200),
  });
});
const squares = LEGEND.reduce((sum, { neededDrills }) => sum + neededDrills, 0);
let photo: SimulatedPhoto;
beforeAll(async () => {
  photo = await simulatedSheet({ legend: LEGEND, seed: 3 });
});
const read = (input: Partial<Parameters<typeof readSheetPhoto>[0]> = {}) =>
  readSheetPhoto(
    { bytes: photo.jpeg, corners: photo.corners[0]!, squares, packetDrills: 200, ...input },
    () => {},
  );

describe('a photo of the printed sheet', () => {
  it('is read to its numbers; what is wrong is among what is shown', async () => {
    const { table, doubtful, sum } = await read();
    expect(table.columns).toEqual(['No.', 'Code', 'Name', 'Drills', 'Bags']);
    const { lines } = readSheetLines(table.rows, table.mapping);
    expect(lines).toHaveLength(LEGEND.length);
    const wrong = lines.flatMap((found, row) => {
      const meant = LEGEND[row]!;
      return (['code', 'neededDrills', 'packets', 'keyNumber'] as const)
        .filter((field) => String(found[field]) !== String(meant[field]))
        .map((field) => ({ row, column: table.mapping[field] }));
    });
    // 98 of 100 cells of a usual photo are read right; this one is a good one.
    expect(wrong.length).toBeLessThanOrEqual(1);
    const shown = new Set(doubtful.map(({ row, column }) => `${row} ${column}`));
    expect(
      wrong.filter(({ row, column }) => !shown.has(`${row} ${column}`)).length === 0 || sum !== null,
    ).toBe(true);
    expect(doubtful.length).toBeLessThan(6);
    for (const { picture } of doubtful) expect(picture).toMatch(/^data:image\/png;base64,/);
  });

  // Lists go on: the last page has what is left.
  it.each([1, 2])(
    'of a last page is read too, with %i of its rows',
    async (rows) => {
      const legend = LEGEND.slice(0, rows);
      const { jpeg, corners } = await simulatedSheet({ legend, seed: 4 });
      const { table } = await read({ bytes: jpeg, corners: corners[0]! });
      const { lines } = readSheetLines(table.rows, table.mapping);
      expect(lines.map(({ keyNumber, code, neededDrills }) => [keyNumber, code, neededDrills])).toEqual(
        legend.map(({ keyNumber, code, neededDrills }) => [keyNumber, code, neededDrills]),
      );
    },
    60_000,
  );

  it('from too far away is refused, and read right from a little nearer', async () => {
    const legend = LEGEND.slice(0, 4);
    const near = await simulatedSheet({ legend, seed: 4 });
    const { width } = await sharp(near.jpeg).metadata();
    /** The sheet on a table, so far away that its rows are so many pixels high. */
    const from = async (rowPx: number) => {
      const share = rowPx / 46;
      const input = await sharp(near.jpeg)
        .resize(Math.round(width! * share))
        .toBuffer();
      const table = sharp({ create: { width: 1600, height: 1200, channels: 3, background: '#b8b0a4' } });
      const bytes = await table
        .composite([{ input, left: 200, top: 200 }])
        .jpeg()
        .toBuffer();
      const corners = near.corners[0]!.map(([x, y]) => [200 + x * share, 200 + y * share]);
      return read({ bytes: new Uint8Array(bytes), corners: corners as never });
    };
    await expect(from(20)).rejects.toThrow('too small on this photo');
    const { table } = await from(28);
    expect(
      readSheetLines(table.rows, table.mapping).lines.map(({ code, neededDrills }) => [code, neededDrills]),
    ).toEqual(legend.map(({ code, neededDrills }) => [code, neededDrills]));
  });

  it('of something else, or too small, is told in a sentence', async () => {
    const plain = await sharp({ create: { width: 900, height: 700, channels: 3, background: '#e9e6df' } })
      .jpeg()
      .toBuffer();
    const corners = [
      [50, 50],
      [800, 50],
      [800, 600],
      [50, 600],
    ] as const;
    await expect(read({ bytes: new Uint8Array(plain), corners })).rejects.toThrow('No ruled table');
    const [a, b, c, d] = photo.corners[0]!;
    await expect(read({ corners: [b, a, d, c] })).rejects.toThrow('wrong way');
    const small = [
      [50, 50],
      [130, 50],
      [130, 130],
      [50, 130],
    ] as const;
    await expect(read({ corners: small })).rejects.toThrow('too small');
  });
});

it('a sheet says itself where it was misread: number, bags and sum', () => {
  const mapping = {
    keyNumber: 0,
    code: 1,
    neededDrills: 2,
    packets: 3,
    name: null,
    symbol: null,
    hex: null,
    finish: null,
  };
  const rows = [
    ['1', '310', '400', '3'],
    ['2', '745', '150', '1'],
    ['8', '98', '900', '5'],
    ['4', '412', '3000', '2'],
    ['5', '', '200', '2'],
  ].map((cells, i) => ({ lineNumber: i + 1, cells }));
  const confidence = rows.map(() => [96, 96, 96, 96]);
  confidence[1]![1] = 40;
  const { entries, sum } = doubtfulEntries(rows, confidence, mapping, { squares: 4700, packetDrills: 200 });
  expect(entries.map(({ row, column }) => [row, column])).toEqual([
    [1, 1],
    [2, 0],
    [3, 2],
    [3, 3],
    [4, 1],
  ]);
  expect(entries[2]!.why).toContain('15 bags of 200');
  expect(sum).toContain('4,650');
  const right = rows.map((row) =>
    row.cells[2] === '3000' ? { ...row, cells: ['4', '412', '300', '2'] } : row,
  );
  expect(doubtfulEntries(right, confidence, mapping, { squares: 1950, packetDrills: 200 }).sum).toBeNull();
});
