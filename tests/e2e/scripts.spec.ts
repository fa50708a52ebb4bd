import { randomUUID } from 'node:crypto';
import { words } from '../server/pdfReader';
import { expect, test } from './bench';

/** Names of colours in ten scripts and one that no font has; the words are ours. */
const NAMES = [
  'Żółć łąki',
  'Açık yeşil ığ',
  'Xanh biếc',
  'Γαλάζιο ουρανού',
  'Тёмно-синий',
  '天空蓝',
  'そらいろ',
  '하늘색',
  'أزرق سماوي',
  'हिरवा आसमानी',
  'สีน้ำเงิน',
  '\u{13000}\u{13001}',
];
/** Those whose glyphs are their letters, one by one, and can be read so. */
const PLAIN = NAMES.slice(0, 8);

test('labels of a kit with names in ten scripts are printed, and what cannot be is told first', async ({
  page,
  request,
}) => {
  const id = randomUUID();
  await request.post('/api/canvases', {
    data: { id, title: 'Ten scripts', shape: 'square', pitchMm: 2.5, width: 40, height: 30 },
  });
  const sheet = NAMES.map((name, i) => `${i + 1}\t${'ABCDEFGHIJKL'[i]}\t${810 + i}\t${name}\t100\t1`);
  const { lines } = await (
    await request.post('/api/sheet-readings', {
      data: ['Key\tSymbol\tCode\tName\tDrills\tPackets', ...sheet].join('\n'),
      headers: { 'content-type': 'text/plain' },
    })
  ).json();
  expect((await request.put(`/api/canvases/${id}/sheet`, { data: { lines } })).ok()).toBe(true);

  await page.goto(`/canvas/${id}/kitup/labels`);
  await expect(page.getByText('No font here prints the name of 821.')).toBeVisible();
  await page.getByLabel('What to print on').selectOption('list');
  const preview = page.getByRole('img', { name: 'Sheet 1 as it will be printed' });
  await expect
    .poll(() => preview.evaluate((image: HTMLImageElement) => image.complete && image.naturalWidth > 100))
    .toBe(true);
  const link = page.getByRole('link', { name: 'Print (PDF)' });
  const pdf = await request.get((await link.getAttribute('href'))!);
  const read = (await words(new Uint8Array(await pdf.body())))
    .map(({ text }) => text)
    .join('')
    .replace(/\s/g, '');
  for (const name of PLAIN) expect(read).toContain(name.replace(/\s/g, ''));
  for (let i = 0; i < NAMES.length; i++) expect(read).toContain(String(810 + i));

  await page.goto(`/canvas/${id}/checkin/request`);
  await expect(page.getByText('No font here prints the name of 821.')).toBeVisible();
});
