import { describe, expect, it } from 'vitest';
import { CAMERA_LEVELS, takePhoto } from '../../../src/core/reading/camera';
import { countedCells, otherCount } from '../../../src/core/reading/countCells';
import type { Corners } from '../../../src/core/reading/homography';
import { cellNear, cornerNear, type Mesh, plainMesh, refinedMesh } from '../../../src/core/reading/mesh';
import type { Photo } from '../../../src/core/reading/photo';
import { readPhoto, smallPhotoFor } from '../../../src/core/reading/readPhoto';
import { samplesOf, samplesOfExamples } from '../../../src/core/reading/samples';
import { type PlacedReading, stitched } from '../../../src/core/reading/stitch';
import { homographyTo } from '../../../src/core/view/projective';
import { PRINTS, printedScene } from './prints';

const [COLUMNS, ROWS] = [22, 16];
const scene = printedScene(COLUMNS + 8, ROWS + 8, 5);
const rect = { x: 4, y: 4, width: COLUMNS, height: ROWS };
const truth = (column: number, row: number) => scene.chart.cells[(4 + row) * scene.chart.width + 4 + column]!;
const normal = takePhoto(scene, { rect, cellPx: 40, level: CAMERA_LEVELS.normal, seed: 21 });

/** How far the nodes of a mesh lie off, in cells; the worst but for one in twenty. */
function off(mesh: Mesh): number {
  const far = Array.from(mesh.x, (x, at) => {
    const [tx, ty] = normal.where(at % (COLUMNS + 1), Math.floor(at / (COLUMNS + 1)));
    return Math.hypot(x - tx, mesh.y[at]! - ty) / 40;
  }).sort((a, b) => a - b);
  return far[Math.floor(far.length * 0.95)]!;
}

/** One cell of each colour, as somebody would point at it. */
const examples = [...PRINTS.keys()].map((line) => {
  for (let row = 2; row < ROWS; row++)
    for (let column = 2; column < COLUMNS; column++)
      if (truth(column, row) === line) return { line, column, row };
  throw new Error('Every colour is there.');
});

describe('the mesh of a photograph', () => {
  it('follows lines that wave, where the plain map of the corners does not', () => {
    const map = homographyTo(normal.corners, COLUMNS, ROWS);
    expect(off(plainMesh(map, COLUMNS, ROWS))).toBeGreaterThan(0.2);
    const small = smallPhotoFor(normal.photo, normal.corners, COLUMNS, ROWS);
    expect(off(refinedMesh(small, map, COLUMNS, ROWS))).toBeLessThan(0.08);
  });
});

describe('a mesh that is mended by hand', () => {
  const map = homographyTo(normal.corners, COLUMNS, ROWS);
  const nodeOf = (mesh: Mesh, { column, row }: { column: number; row: number }) =>
    [mesh.x[row * (COLUMNS + 1) + column]!, mesh.y[row * (COLUMNS + 1) + column]!] as const;

  it('runs through the corners of squares that were put in their place, also where no line is seen', () => {
    const plain: Photo = { ...normal.photo, data: normal.photo.data.map(() => 128) };
    const small = smallPhotoFor(plain, normal.corners, COLUMNS, ROWS);
    const before = plainMesh(map, COLUMNS, ROWS);
    const [x, y] = nodeOf(before, { column: 11, row: 8 });
    const pin = { column: 11, row: 8, x: x + 30, y: y - 20 };
    const mended = refinedMesh(small, map, COLUMNS, ROWS, [pin]);
    const far = (node: { column: number; row: number }, to: readonly [number, number]) =>
      Math.hypot(nodeOf(mended, node)[0] - to[0], nodeOf(mended, node)[1] - to[1]) / 40;
    expect(far(pin, [pin.x, pin.y])).toBeLessThan(0.1);
    // What is near goes along, the corners stay.
    const beside = { column: 13, row: 8 };
    const [bx, by] = nodeOf(before, beside);
    expect(far(beside, [bx, by])).toBeGreaterThan(0.3);
    expect(far({ column: 0, row: 0 }, nodeOf(before, { column: 0, row: 0 }))).toBeLessThan(0.1);
  });

  it('knows which crossing and which square lie nearest to a tap', () => {
    const mesh = plainMesh(map, COLUMNS, ROWS);
    const [x, y] = nodeOf(mesh, { column: 7, row: 5 });
    expect(cornerNear(mesh, [x + 9, y - 6])).toEqual({ column: 7, row: 5 });
    expect(cellNear(mesh, [x + 15, y + 18])).toEqual({ column: 7, row: 5 });
    expect(cellNear(mesh, [x - 15, y + 18])).toEqual({ column: 6, row: 5 });
    expect(cellNear(mesh, [normal.photo.width * 3, 0])).toBeNull();
  });

  it('is as good as before where what was put right was right', () => {
    const small = smallPhotoFor(normal.photo, normal.corners, COLUMNS, ROWS);
    const [x, y] = normal.where(11, 8);
    expect(off(refinedMesh(small, map, COLUMNS, ROWS, [{ column: 11, row: 8, x, y }]))).toBeLessThan(0.08);
  });
});

describe('columns and rows', () => {
  it('are counted between the corners; one too many is told', () => {
    const count = countedCells(normal.photo, normal.corners);
    expect(count).toMatchObject({ columns: COLUMNS, rows: ROWS });
    expect(count!.sure).toBeGreaterThan(0.8);
    const said = { columns: COLUMNS, rows: ROWS };
    expect(otherCount(count, said, 'told')).toBeNull();
    expect(otherCount(count, { ...said, columns: COLUMNS + 1 }, 'believed')).toContain(
      `${COLUMNS} columns and ${ROWS} rows are counted, not ${COLUMNS + 1}`,
    );
    expect(otherCount({ ...count!, sure: 0.6 }, { ...said, rows: 3 }, 'believed')).toBeNull();
    expect(otherCount({ ...count!, sure: 0.6 }, { ...said, rows: 3 }, 'told')).not.toBeNull();
    const plain: Photo = { ...normal.photo, data: normal.photo.data.map(() => 128) };
    expect(countedCells(plain, normal.corners)).toBeNull();
  });
});

describe('squares that are pointed at', () => {
  it('tell the tint by the one without shine on it, whichever comes first', () => {
    const line = truth(8, 6);
    const three: { line: number; column: number; row: number }[] = [];
    for (let row = 2; row < ROWS - 2; row++)
      for (let column = 2; column < COLUMNS - 2; column++)
        if (truth(column, row) === line && three.length < 3) three.push({ line, column, row });
    expect(three).toHaveLength(3);
    // White light over the middle of two of them, which leaves the printed lines where they are.
    const shiny: Photo = { ...normal.photo, data: normal.photo.data.slice() };
    for (const { column, row } of three.slice(0, 2)) {
      const [x0, y0] = normal.where(column + 0.1, row + 0.1);
      const [x1, y1] = normal.where(column + 0.9, row + 0.9);
      for (let y = Math.round(y0); y < y1; y++)
        for (let x = Math.round(x0); x < x1; x++)
          for (let channel = 0; channel < 3; channel++) {
            const at = (y * shiny.width + x) * 4 + channel;
            shiny.data[at] = Math.min(250, shiny.data[at]! + 70);
          }
    }
    const tintBy = (some: typeof three) =>
      samplesOfExamples(shiny, normal.corners, COLUMNS, ROWS, some)[0]!.tint;
    const plain = tintBy([three[2]!]);
    expect(tintBy([three[0]!])[0]).toBeGreaterThan(plain[0] + 0.05);
    expect(tintBy(three)).toEqual(plain);
    expect(tintBy([...three].reverse())).toEqual(plain);
  });
});

describe('a photograph', () => {
  it('of a usual evening is read from one example of each colour, and what is wrong is shown', () => {
    const samples = samplesOfExamples(normal.photo, normal.corners, COLUMNS, ROWS, examples);
    const progress: number[] = [];
    const reading = readPhoto(normal.photo, normal.corners, COLUMNS, ROWS, samples, {
      progress: (share) => progress.push(share),
    });
    const wrong = [...reading.cells].filter(
      (line, cell) => line !== truth(cell % COLUMNS, Math.floor(cell / COLUMNS)),
    );
    const unshown = [...reading.cells].filter(
      (line, cell) => line !== truth(cell % COLUMNS, Math.floor(cell / COLUMNS)) && !reading.flagged[cell],
    );
    expect(unshown).toEqual([]);
    expect(wrong.length).toBeLessThanOrEqual(3);
    const shown = reading.flagged.reduce((sum, flag) => sum + flag, 0);
    expect(shown).toBeLessThan(COLUMNS * ROWS * 0.06);
    expect(off(reading.mesh)).toBeLessThan(0.06);
    expect(progress).toEqual([...progress].sort((a, b) => a - b));
    // The same photograph says the same again.
    expect(readPhoto(normal.photo, normal.corners, COLUMNS, ROWS, samples).cells).toEqual(reading.cells);
  });

  it('says so where it cannot be read', () => {
    const samples = samplesOfExamples(normal.photo, normal.corners, COLUMNS, ROWS, examples);
    const read = (photo: Photo, corners: Corners, columns: number, rows = ROWS, some = samples) =>
      readPhoto(photo, corners, columns, rows, some);
    const [a, b, c, d] = normal.corners;
    expect(() => read(normal.photo, [b, a, d, c], COLUMNS)).toThrow('wrong way');
    expect(() => read(normal.photo, normal.corners, 200)).toThrow('Go nearer, or take more photos');
    expect(() => read(normal.photo, normal.corners, 0)).toThrow('how many columns');
    expect(() => read(normal.photo, normal.corners, COLUMNS, ROWS, samples.slice(0, 1))).toThrow(
      'two colours',
    );
    expect(() =>
      samplesOfExamples(normal.photo, normal.corners, COLUMNS, ROWS, [{ line: 1, column: COLUMNS, row: 0 }]),
    ).toThrow(`no square in column ${COLUMNS}`);
    const corner = {
      line: 1,
      corners: [
        [0, 0],
        [5, 0],
        [5, 5],
        [0, 5],
      ] as Corners,
    };
    expect(() => samplesOf(normal.photo, [corner])).toThrow('A swatch has 5 pixels');
    const onALine: Corners = [
      [0, 0],
      [40, 40],
      [80, 80],
      [5, 60],
    ];
    expect(() => samplesOf(normal.photo, [{ line: 7, corners: onALine }])).toThrow('swatch of line 7');
  });

  it('of something else has everything in doubt', () => {
    const samples = samplesOfExamples(normal.photo, normal.corners, COLUMNS, ROWS, examples);
    const other: Photo = {
      ...normal.photo,
      data: normal.photo.data.map((_, i) => (i % 4 === 3 ? 255 : (i * 2654435761) % 251)),
    };
    const reading = readPhoto(other, normal.corners, COLUMNS, ROWS, samples);
    expect(reading.flagged.reduce((sum, flag) => sum + flag, 0) / (COLUMNS * ROWS)).toBeGreaterThan(0.95);
  });
});

describe('photographs put together', () => {
  /** What a sure photograph of a part of the canvas reads; cells named in `wrong` are read as 9. */
  const part = (
    x: number,
    y: number,
    width: number,
    height: number,
    at: PlacedReading['at'],
    wrong: number[] = [],
  ): PlacedReading => {
    const cells = Uint16Array.from({ length: width * height }, (_, cell) =>
      wrong.includes(cell)
        ? 9
        : scene.chart.cells[(y + Math.floor(cell / width)) * scene.chart.width + x + (cell % width)]!,
    );
    const doubt = Float32Array.from(cells, (_, cell) => (wrong.includes(cell) ? 0.3 : 0.001));
    return {
      reading: {
        ...{ columns: width, rows: height, cells, others: new Uint16Array(cells.length), doubt },
        torn: new Uint8Array(cells.length),
      },
      at,
    };
  };

  it('find their places by what they read, from the one that is told', () => {
    const all = stitched([
      part(12, 10, 18, 14, null),
      part(0, 0, 18, 14, { column: 100, row: 50 }, [5]),
      part(0, 9, 18, 15, null),
    ]);
    expect(all.places).toEqual([
      { column: 112, row: 60 },
      { column: 100, row: 50 },
      { column: 100, row: 59 },
    ]);
    expect([all.x, all.y, all.width, all.height]).toEqual([100, 50, 30, 24]);
    const missing = [...all.cells].flatMap((line, cell) => (line === 0 ? [cell] : []));
    expect(missing.every((cell) => cell % 30 >= 18 && cell < 30 * 10)).toBe(true);
    all.cells.forEach((line, cell) => {
      if (line !== 0 && cell !== 5) expect(line).toBe(scene.chart.cells[cell]);
    });
    expect([all.cells[5], all.flagged[5]]).toEqual([9, 1]);
  });

  it('settle what one of them is in doubt of, and show what they are sure of and disagree about', () => {
    const at = { column: 0, row: 0 };
    const [one, two] = [part(0, 0, 10, 8, at, [3]), part(0, 0, 10, 8, at)];
    const clash = 20;
    two.reading.cells[clash] = two.reading.cells[clash]! === 1 ? 2 : 1;
    const both = stitched([one, two]);
    expect([both.cells[3], both.flagged[3]]).toEqual([scene.chart.cells[3], 0]);
    expect([both.flagged[clash], both.doubt[clash]]).toEqual([1, 0.5]);
    expect(both.doubt[0]).toBeCloseTo(1e-6, 9);
  });

  it('are refused where their places lie farther apart than a canvas is wide', () => {
    const far = part(0, 0, 10, 8, { column: 90_000, row: 80_000 });
    expect(() => stitched([part(0, 0, 10, 8, { column: 0, row: 0 }), far])).toThrow('at most 1,000,000');
  });

  it('are not joined where nothing tells how', () => {
    const plain = part(0, 0, 8, 8, null);
    plain.reading.cells.fill(1);
    const all = stitched([part(0, 0, 18, 14, { column: 0, row: 0 }), plain]);
    expect(all.places[1]).toBeNull();
    expect(stitched([]).width).toBe(0);
  });
});
