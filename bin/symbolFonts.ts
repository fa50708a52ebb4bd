import { createHash } from 'node:crypto';
import { mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { create } from 'fontkit';
import { convert } from 'fontverter';
import subsetFont from 'subset-font';
import type { Plugin } from 'vite';
import { rangesOf } from '../src/server/print/fontFiles';

/** The fonts of symbols, in the order in which a page looks for one. */
const FAMILIES = [
  { name: 'Noto Sans Math', folder: 'noto-sans-math' },
  { name: 'Noto Sans Symbols 2', folder: 'noto-sans-symbols-2' },
];
/** A chart uses some dozens of thousands of symbols: what is larger is cut, so that a page loads only the parts it shows. */
const LARGE_BYTES = 40_000;
/** Code points of a part: Unicode puts what is alike together in blocks of such a size. */
const PART = 256;

/** Where pages and tests have them made. */
export const MADE = resolve('node_modules/.cache/symbol-fonts');

/** The parts of a font as its code points by block; none where it is small. */
function partsOf(bytes: Buffer, ranges: string): number[][] {
  if (bytes.length < LARGE_BYTES) return [];
  const font = create(bytes);
  const wanted = rangesOf(ranges);
  const parts = new Map<number, number[]>();
  const held = 'characterSet' in font ? font.characterSet : [];
  for (const point of [...new Set(held)].sort((a, b) => a - b)) {
    if (!wanted.some(([first, last]) => point >= first && point <= last)) continue;
    const block = Math.floor(point / PART);
    const part = parts.get(block);
    if (part) part.push(point);
    else parts.set(block, [point]);
  }
  return [...parts.values()];
}

/** @example inRanges([0x25a0, 0x25a1, 0x25b2]) // 'U+25a0-25a1,U+25b2' */
function inRanges(points: readonly number[]): string {
  const ranges: [first: number, last: number][] = [];
  for (const point of points) {
    const last = ranges.at(-1);
    if (last && point === last[1] + 1) last[1] = point;
    else ranges.push([point, point]);
  }
  return ranges
    .map(([first, last]) => `U+${first.toString(16)}${last === first ? '' : `-${last.toString(16)}`}`)
    .join();
}

const face = (name: string, file: string, ranges: string) =>
  `@font-face{font-family:'${name}';font-style:normal;font-display:swap;font-weight:400;src:url(${file}) format('woff2');unicode-range:${ranges}}\n`;

/** What the parts follow from: this program and the fonts. */
async function madeFrom(families: typeof FAMILIES): Promise<string> {
  const hash = createHash('sha256').update(await readFile(resolve('bin/symbolFonts.ts')));
  for (const { folder } of families)
    hash.update(await readFile(resolve('node_modules/@fontsource', folder, 'package.json')));
  return `/* ${hash.digest('hex')} */`;
}

/**
 * Cuts the fonts of symbols and writes the style sheet that names the parts; where that was done before, of the same fonts,
 * nothing more is.
 * @param into directory, made anew
 * @returns path of the sheet
 */
export async function makeSymbolFonts(into: string, families = FAMILIES): Promise<string> {
  const path = join(into, 'symbols.css');
  const from = await madeFrom(families);
  if ((await readFile(path, 'utf8').catch(() => '')).startsWith(from)) return path;
  await rm(into, { recursive: true, force: true });
  await mkdir(into, { recursive: true });
  let sheet = `${from}\n`;
  for (const { name, folder } of families) {
    const whole = resolve('node_modules/@fontsource', folder);
    const pieces: Record<string, string> = JSON.parse(await readFile(join(whole, 'unicode.json'), 'utf8'));
    for (const [piece, ranges] of Object.entries(pieces)) {
      const file = join(whole, 'files', `${folder}-${piece}-400-normal.woff2`);
      const bytes = await readFile(file);
      const parts = partsOf(bytes, ranges);
      if (parts.length === 0) {
        sheet += face(name, file, ranges);
        continue;
      }
      const font = await convert(bytes, 'sfnt');
      for (const points of parts) {
        const part = join(into, `${folder}-${piece}-${points[0]!.toString(16)}.woff2`);
        const text = String.fromCodePoint(...points);
        await writeFile(part, await subsetFont(font, text, { targetFormat: 'woff2' }));
        sheet += face(name, part, inRanges(points));
      }
    }
  }
  await writeFile(path, sheet);
  return path;
}

/** Gives pages `virtual:symbol-fonts.css`, the fonts of symbols in parts. */
export function symbolFonts(): Plugin {
  let made: Promise<string> | undefined;
  return {
    name: 'symbol-fonts',
    enforce: 'pre',
    resolveId(id) {
      if (id !== 'virtual:symbol-fonts.css') return null;
      made ??= makeSymbolFonts(MADE);
      return made;
    },
  };
}
