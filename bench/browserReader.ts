import { resolve } from 'node:path';
import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import { IN_ONE_FILE } from '../bin/programs';
import type { ClassSample } from '../src/core/reading/classify';
import type { Corners } from '../src/core/reading/homography';
import type { Photo } from '../src/core/reading/photo';

/** What reads one photo several times and tells the times in milliseconds. */
const WORKER = `
  import { readPhoto } from './src/core/reading/readPhoto';
  onmessage = ({ data: { photo, corners, columns, rows, samples, times } }) => {
    const taken = Array.from({ length: times }, () => {
      const from = performance.now();
      readPhoto(photo, corners, columns, rows, samples);
      return performance.now() - from;
    });
    postMessage(taken);
  };`;
/** No such place: each request is answered here. */
const ORIGIN = 'http://bench.invalid/';

/** How to read a photograph. */
export interface ReadingJob {
  photo: Photo;
  corners: Corners;
  columns: number;
  rows: number;
  samples: readonly ClassSample[];
}

/** Where photographs are read in the product: one worker of a browser, a new one for each job. */
export async function openBrowserReader(): Promise<{
  /** @returns milliseconds for each time, the first in a program that has read none */
  read(job: ReadingJob, times: number): Promise<number[]>;
  close(): Promise<void>;
}> {
  const { outputFiles } = await build({
    stdin: { contents: WORKER, resolveDir: resolve('.'), loader: 'ts' },
    bundle: true,
    format: 'iife',
    target: 'es2022',
    write: false,
    alias: IN_ONE_FILE,
  });
  const program = outputFiles[0]!.text;
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
    args: ['--headless', '--no-sandbox', '--disable-gpu'],
  });
  const page = await browser.newPage();
  let pixels: Buffer = Buffer.alloc(0);
  await page.route(`${ORIGIN}**`, (route) =>
    route.request().url().endsWith('photo')
      ? route.fulfill({ body: pixels })
      : route.fulfill({ contentType: 'text/html', body: '<!doctype html>' }),
  );
  await page.goto(ORIGIN);
  return {
    read: ({ photo, samples, ...job }, times) => {
      const { data, width, height } = photo;
      pixels = Buffer.from(data.buffer, data.byteOffset, data.byteLength);
      const plain = samples.map((sample) => ({ ...sample, glyph: [...sample.glyph] }));
      return page.evaluate(
        async ({ program, samples, width, height, ...job }) => {
          const data = new Uint8ClampedArray(await (await fetch('photo')).arrayBuffer());
          const worker = new Worker(URL.createObjectURL(new Blob([program])));
          const taken = new Promise<number[]>((resolve, reject) => {
            worker.onmessage = (message) => resolve(message.data);
            worker.onerror = (error) => reject(new Error(error.message));
          });
          const exact = samples.map((sample) => ({ ...sample, glyph: Float32Array.from(sample.glyph) }));
          worker.postMessage({ ...job, photo: { width, height, data }, samples: exact });
          return taken.finally(() => worker.terminate());
        },
        { ...job, program, samples: plain, width, height, times },
      );
    },
    close: () => browser.close(),
  };
}
