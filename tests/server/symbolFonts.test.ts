import { mkdtemp, readFile, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { create } from 'fontkit';
import { expect, it } from 'vitest';
import { MADE, makeSymbolFonts } from '../../bin/symbolFonts';

interface Face {
  family: string;
  file: string;
  points: Set<number>;
}

/** The faces of a style sheet, read without what has written it. */
function facesOf(sheet: string, folder: string): Face[] {
  return [...sheet.matchAll(/@font-face\s*{([^}]*)}/g)].map(([, face = '']) => {
    const points = new Set<number>();
    for (const [, first = '', last = first] of face.matchAll(/U\+([0-9a-f]+)(?:-([0-9a-f]+))?/gi)) {
      for (let point = Number.parseInt(first, 16); point <= Number.parseInt(last, 16); point++)
        points.add(point);
    }
    return {
      family: /font-family:\s*'([^']*)'/.exec(face)![1]!,
      file: resolve(folder, /url\(([^)]*\.woff2)\)/.exec(face)![1]!),
      points,
    };
  });
}

async function held(file: string): Promise<Set<number>> {
  const font = create(await readFile(file));
  return new Set('characterSet' in font ? font.characterSet : []);
}

it('a page finds each symbol that the fonts hold in one part, which has it, and no part is large', async () => {
  const parts = facesOf(await readFile(await makeSymbolFonts(MADE), 'utf8'), MADE);
  const holds = new Map(
    await Promise.all(parts.map(async ({ file }) => [file, await held(file)] as [string, Set<number>])),
  );
  for (const folder of ['noto-sans-math', 'noto-sans-symbols-2']) {
    const from = resolve('node_modules/@fontsource', folder);
    for (const { family, file, points } of facesOf(await readFile(join(from, '400.css'), 'utf8'), from)) {
      const own = [...(await held(file))].filter((point) => points.has(point));
      expect(own.length).toBeGreaterThan(0);
      const lost = own.filter(
        (point) =>
          !parts.some(
            (part) => part.family === family && part.points.has(point) && holds.get(part.file)!.has(point),
          ),
      );
      expect(lost.map((point) => `${family} ${point.toString(16)}`)).toEqual([]);
    }
  }
  // A part is loaded by what its range says: a point in two parts of one file would load both.
  const cut = parts.filter(({ file }) => file.startsWith(MADE));
  expect(cut.length).toBeGreaterThan(20);
  for (const { family, file, points } of cut) {
    expect((await stat(file)).size).toBeLessThan(100_000);
    const others = cut.filter((other) => other.family === family && other.file !== file);
    expect([...points].filter((point) => others.some((other) => other.points.has(point)))).toEqual([]);
  }
}, 120_000);

it('what was made of other fonts, or not to its end, is made anew, and nothing else', async () => {
  const into = await mkdtemp(join(tmpdir(), 'oculent-fonts-'));
  // Small pieces are not cut, which takes no time.
  const families = [{ name: 'Atkinson Hyperlegible Mono', folder: 'atkinson-hyperlegible-mono' }];
  const path = await makeSymbolFonts(into, families);
  const whole = await readFile(path, 'utf8');
  expect(facesOf(whole, into).length).toBeGreaterThan(0);
  const stray = join(into, 'of-another-time.woff2');
  await writeFile(stray, '');
  await makeSymbolFonts(into, families);
  await stat(stray);
  for (const wrong of [whole.replace(/[0-9a-f]{64}/, '0'.repeat(64)), '']) {
    await writeFile(stray, '');
    await writeFile(path, wrong);
    await makeSymbolFonts(into, families);
    expect(await readFile(path, 'utf8')).toBe(whole);
    await expect(stat(stray)).rejects.toThrow('ENOENT');
  }
  await rm(into, { recursive: true });
});
