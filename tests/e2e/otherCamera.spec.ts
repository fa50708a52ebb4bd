import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { seededRandom } from '../../src/core/chance/random';
import { expect, test } from './bench';
import { run } from './server';

/*
 * Photographs that owe nothing to the simulated camera of the app: the browser draws a canvas with letters of two fonts
 * that no number of the reader was fitted to, tilts it in perspective, bends it, lights it, blurs it, and puts grain on it.
 */
const [WIDTH, HEIGHT, PX] = [32, 24, 36];
const LETTERS = [...'אבגדהזחטכלמנסעפצקרשתกขคฉชญฐณดตธนบผฝ'];
const HUES = LETTERS.map((_, i) => ({ hue: (i * 137.5) % 360, light: 25 + ((i * 29) % 60) }));
const tint = (i: number) => `hsl(${HUES[i]!.hue} ${30 + ((i * 17) % 50)}% ${HUES[i]!.light}%)`;

interface Light {
  near: string;
  far: string;
  shine: number;
  blurPx: number;
  quality: number;
}
const DAY: Light = {
  near: 'rgb(255 252 244)',
  far: 'rgb(190 186 178)',
  shine: 0,
  blurPx: 0.6,
  quality: 88,
};
const EVENING: Light = {
  near: 'rgb(255 214 160)',
  far: 'rgb(140 104 70)',
  shine: 0.45,
  blurPx: 1,
  quality: 80,
};

/** Colours in patches with much confetti. */
function colours(seed: number): number[] {
  const random = seededRandom(seed);
  return Array.from({ length: WIDTH * HEIGHT }, (_, k) => {
    const patch = (((k % WIDTH) >> 3) * 7 + (Math.floor(k / WIDTH) >> 3) * 5) % LETTERS.length;
    return random.uniform() < 0.55 ? patch : Math.floor(random.uniform() * LETTERS.length);
  });
}

async function font(script: 'hebrew' | 'thai'): Promise<string> {
  const name = `noto-sans-${script}`;
  const file = createRequire(import.meta.url).resolve(
    `@fontsource-variable/${name}/files/${name}-${script}-wght-normal.woff2`,
  );
  return `url(data:font/woff2;base64,${(await readFile(file)).toString('base64')})`;
}

/** @returns the photo, and where the corners of the squares lie on it */
async function photograph(page: Page, cells: number[], isLaid: (cell: number) => boolean, light: Light) {
  const squares = cells.map((colour, cell) =>
    isLaid(cell)
      ? `<i style="background: linear-gradient(135deg, #fff6 0 22%, #0000 22% 78%, #0005 78%), ${tint(colour)}"></i>`
      : `<i style="background: ${tint(colour)}; color: ${HUES[colour]!.light > 52 ? '#181818' : '#f4f4f4'}">${LETTERS[colour]}</i>`,
  );
  const rim = 60;
  const corners = [
    [0, 0],
    [WIDTH, 0],
    [WIDTH, HEIGHT],
    [0, HEIGHT],
  ].map(([x, y]) => `<b style="left: ${rim + x! * PX}px; top: ${rim + y! * PX}px"></b>`);
  await page.setViewportSize({ width: 1480, height: 1150 });
  await page.setContent(`<style>
    @font-face { font-family: One; src: ${await font('hebrew')} }
    @font-face { font-family: Two; src: ${await font('thai')} }
    body { margin: 0; background: #8a7a66; overflow: hidden }
    body > div { position: absolute; inset: 0 }
    .room { perspective: 2600px; filter: url(#waves) blur(${light.blurPx}px) }
    .canvas { position: absolute; left: 150px; top: 110px; padding: ${rim}px; background: #f2efe6;
      display: grid; grid-template-columns: repeat(${WIDTH}, ${PX}px);
      transform: rotateX(6deg) rotateY(-5deg) rotateZ(1.1deg) }
    i { width: ${PX - 1}px; height: ${PX - 1}px; margin: 0 1px 1px 0; outline: 1px solid #55524c; overflow: hidden;
      font: normal 600 24px/${PX - 1}px One, Two; text-align: center }
    b { position: absolute; width: 0; height: 0 }
    .light { mix-blend-mode: multiply;
      background: radial-gradient(circle at 30% 20%, ${light.near}, ${light.far} 90%) }
    .shine { mix-blend-mode: screen;
      background: radial-gradient(210px 110px at 820px 310px, rgb(255 255 255 / ${light.shine}), transparent) }
    .grain { opacity: 0.09; filter: url(#grain) }
  </style>
  <svg width="0" height="0">
    <filter id="waves" x="0" y="0" width="100%" height="100%">
      <feTurbulence type="fractalNoise" baseFrequency="0.002" seed="4" />
      <feDisplacementMap in="SourceGraphic" scale="${light === DAY ? 40 : 60}" xChannelSelector="R" yChannelSelector="G" />
    </filter>
    <filter id="grain"><feTurbulence type="fractalNoise" baseFrequency="0.8" /></filter>
  </svg>
  <div class="room"><div class="canvas">${squares.join('')}${corners.join('')}</div></div>
  <div class="light"></div><div class="shine"></div><div class="grain"></div>`);
  await page.evaluate(() => document.fonts.ready);
  return {
    jpeg: await page.screenshot({ type: 'jpeg', quality: light.quality }),
    corners: await page.evaluate(() =>
      [...document.querySelectorAll('b')].map((corner) => {
        const { x, y } = corner.getBoundingClientRect();
        return [x, y];
      }),
    ),
  };
}

/** Reads a photo from three squares of each colour, which must not be laid. @returns what is wrong, by whether it is shown */
async function read(
  { jpeg, corners }: { jpeg: Buffer; corners: number[][] },
  cells: number[],
  isLaid: (cell: number) => boolean,
) {
  const directory = await mkdtemp(join(tmpdir(), 'oculent-other-'));
  await writeFile(join(directory, 'photo.jpg'), jpeg);
  // Scattered, so that they stand in more than one light.
  const scattered = cells.map((_, n) => (n * 389 + 17) % cells.length).filter((cell) => !isLaid(cell));
  const examples = LETTERS.flatMap((_, colour) =>
    scattered
      .filter((cell) => cells[cell] === colour)
      .slice(0, 3)
      .map((cell) => ({
        photo: 0,
        line: colour + 1,
        cell: [cell % WIDTH, Math.floor(cell / WIDTH)],
      })),
  );
  const photos = [{ file: 'photo.jpg', corners, columns: WIDTH, rows: HEIGHT, at: [0, 0] }];
  const job = join(directory, 'job.json');
  await writeFile(job, JSON.stringify({ photos, examples }));
  const { code, output } = await run('src/server/reading/command.ts', [job], {});
  expect(code, output).toBe(0);
  // What is said on the way stands before what is printed.
  const answer = JSON.parse(output.slice(output.indexOf('{'))).photos[0] as {
    cells: number[];
    flagged: number[];
  };
  await rm(directory, { recursive: true });
  const all = cells.map((colour, cell) => ({
    isLaid: isLaid(cell),
    isWrong: answer.cells[cell] !== colour + 1,
    isShown: answer.flagged[cell] === 1,
  }));
  const printed = all.filter((each) => !each.isLaid);
  return {
    squares: printed.length,
    wrong: printed.filter(({ isWrong }) => isWrong).length,
    shown: printed.filter(({ isShown }) => isShown).length,
    unshown: all.filter(({ isWrong, isShown }) => isWrong && !isShown).length,
    laid: all.length - printed.length,
    told: output.slice(0, output.indexOf('{')),
    laidAndShown: all.filter(({ isLaid, isShown }) => isLaid && isShown).length,
  };
}

test('a canvas that another camera saw by day is read without a fault, and what is laid already is shown', async ({
  page,
}) => {
  const cells = colours(5);
  const isLaid = (cell: number) => cell % WIDTH < 9;
  const found = await read(await photograph(page, cells, isLaid, DAY), cells, isLaid);
  expect(found).toMatchObject({ wrong: 0, unshown: 0, laid: 9 * HEIGHT, laidAndShown: 9 * HEIGHT });
  expect(found.shown).toBeLessThanOrEqual(found.squares * 0.03);
  expect(found.told).toContain('Are drills laid there already?');
});

test('in the lamp’s light, with shine and blur, what is read wrong is shown', async ({ page }) => {
  const cells = colours(8);
  const found = await read(await photograph(page, cells, () => false, EVENING), cells, () => false);
  expect(found.unshown).toBe(0);
  expect(found.told).not.toContain('laid');
  expect(found.wrong).toBeLessThanOrEqual(found.squares * 0.005);
  expect(found.shown).toBeLessThanOrEqual(found.squares * 0.04);
});
