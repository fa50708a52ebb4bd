import sharp from 'sharp';
import type { LegendLine } from '../../core/canvas/legend';
import { seededRandom } from '../../core/chance/random';
import type { SimulatedPhoto } from './simulated';

/** Width of each column in pixels of the print, and its heading. */
const COLUMNS = [
  ['No.', 70],
  ['Code', 150],
  ['Name', 330],
  ['Drills', 130],
  ['Bags', 100],
] as const;
const ROW = 46;
const MARGIN = 90;

/** A photo of the printed sheet of a colour list: ruled, a little askew, unevenly lit. */
export async function simulatedSheet({
  legend,
  seed,
}: {
  legend: LegendLine[];
  seed: number;
}): Promise<SimulatedPhoto> {
  const random = seededRandom(seed);
  const width = COLUMNS.reduce((sum, [, wide]) => sum + wide, 0);
  const height = ROW * (legend.length + 1);
  const texts: string[] = [];
  const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');
  const line = (row: number, cells: readonly string[]) => {
    let x = 0;
    for (const [i, [, wide]] of COLUMNS.entries()) {
      texts.push(`<text x="${x + 12}" y="${row * ROW + 32}">${escaped(cells[i]!)}</text>`);
      x += wide;
    }
  };
  line(
    0,
    COLUMNS.map(([words]) => words),
  );
  legend.forEach(({ keyNumber, code, name, neededDrills, packets }, i) => {
    line(i + 1, [keyNumber, code, name.slice(0, 20), String(neededDrills), String(packets)]);
  });
  const rules: string[] = [];
  for (let row = 0; row <= legend.length + 1; row++) rules.push(`<path d="M0 ${row * ROW}H${width}"/>`);
  let at = 0;
  for (const wide of [0, ...COLUMNS.map(([, each]) => each)]) {
    at += wide;
    rules.push(`<path d="M${at} 0V${height}"/>`);
  }
  // Askew as a hand holds a camera: a small turn and a little perspective, by a shear.
  const turn = (random.uniform() - 0.5) * 1.6;
  const shear = (random.uniform() - 0.5) * 0.02;
  const place = (x: number, y: number): [number, number] => {
    const angle = (turn * Math.PI) / 180;
    const sx = x + shear * y;
    return [
      MARGIN + 40 + sx * Math.cos(angle) - y * Math.sin(angle),
      MARGIN + 40 + sx * Math.sin(angle) + y * Math.cos(angle),
    ];
  };
  const [a, b] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  const matrix = [a, b, shear * a - b, shear * b + a, MARGIN + 40, MARGIN + 40].join(' ');
  const [w, h] = [width + 2 * MARGIN + 80, height + 2 * MARGIN + 80];
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}"><defs><linearGradient id="light"><stop offset="0" stop-color="#fff"/><stop offset="1" stop-color="#b9b6ae"/></linearGradient></defs><rect width="100%" height="100%" fill="url(#light)"/><g transform="matrix(${matrix})" font-family="DejaVu Sans, Liberation Sans, sans-serif" font-size="26" fill="#1d1b19" stroke="none">${texts.join('')}<g stroke="#3a3733" stroke-width="2" fill="none">${rules.join('')}</g></g></svg>`;
  const jpeg = await sharp(Buffer.from(svg), { unlimited: true }).blur(0.7).jpeg({ quality: 88 }).toBuffer();
  return {
    jpeg: new Uint8Array(jpeg),
    corners: [[place(0, 0), place(width, 0), place(width, height), place(0, height)]],
  };
}
