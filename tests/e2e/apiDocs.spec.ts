import { spawn } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import { chartPng, DEMO, expect, SHEET, test } from './bench';
import { startDemoServer, throwAway } from './server';

/** The examples of a document, line by line, with the heading under which each stands. */
async function examplesOf(document: string): Promise<{ heading: string; script: string }[]> {
  const examples: { heading: string; script: string }[] = [];
  let heading = '';
  for (const line of (await readFile(document, 'utf8')).split('\n')) {
    if (line.startsWith('#')) heading = line.replace(/^#+ /, '');
    if (!line.startsWith('    ')) continue;
    const last = examples.at(-1);
    if (last?.heading === heading) last.script += `${line.slice(4)}\n`;
    else examples.push({ heading, script: `${line.slice(4)}\n` });
  }
  return examples;
}

/** Files that the examples send. */
async function layFiles(directory: string): Promise<void> {
  const lay = (name: string, content: string | Buffer) => writeFile(join(directory, name), content);
  await lay('sheet.csv', SHEET.replaceAll('\t', ';'));
  await lay('photo.jpg', chartPng());
  const picture = new PNG({ width: 120, height: 80 });
  for (let i = 0; i < picture.data.length; i += 4) picture.data.set([0x4a, 0x7c, 0x3f, 255], i);
  await lay('chart.png', PNG.sync.write(picture));
  await lay('grid.csv', new Array(80).fill(new Array(120).fill('412').join()).join('\n'));
}

const QUICK_IDS =
  'if [ -r /proc/sys/kernel/random/uuid ]; then new() { cat /proc/sys/kernel/random/uuid; }; fi\n';

test('every example of the API runs as it is printed, in its order', async ({ playwright }) => {
  test.setTimeout(600_000);
  const server = await startDemoServer();
  const request = await playwright.request.newContext({ baseURL: server.url });
  // Backups of the largest canvas would take a third of the time; they are tested elsewhere.
  for (const path of ['canvases', 'deleted']) await request.delete(`/api/${path}/${DEMO.glasshouse}`);
  const directory = await mkdtemp(join(tmpdir(), 'oculent-api-'));
  await layFiles(directory);
  const sheet = await request.get(`/api/canvases/${DEMO.kingfisher}/sheet.xlsx`);
  await writeFile(join(directory, 'sheet.xlsx'), await sheet.body());
  const examples = await examplesOf('docs/api.md');
  expect(examples.length).toBeGreaterThan(40);
  const script = [
    // A refusal fails, as it would not in the plain program.
    'curl() { command curl --silent --show-error --fail-with-body "$@"; }',
    'set -e',
    ...examples.map(
      ({ heading, script }, i) =>
        `echo; echo ${JSON.stringify(`::: ${heading.replaceAll(/[`$"\\]/g, '')}`)} >&2\n${
          // The tests' own server stands in for the usual address, and ids come without a program of Node for each.
          i === 0 ? `${script.replace('http://127.0.0.1:4470', server.url)}new\n${QUICK_IDS}` : script
        }`,
    ),
  ].join('\n');
  const { code, told } = await new Promise<{ code: number | null; told: string }>((resolve) => {
    const shell = spawn('bash', ['-c', script], { cwd: directory });
    let told = '';
    shell.stdout.on('data', (text) => {
      told = `${told}${text}`.slice(-4000);
    });
    shell.stderr.on('data', (text) => {
      told = `${told}${text}`.slice(-4000);
    });
    shell.once('exit', (code) => resolve({ code, told }));
  });
  expect(code, told).toBe(0);
  await rm(directory, { recursive: true, force: true });
  await throwAway(server);
});
