import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import sharp from 'sharp';
import { expect, it } from 'vitest';
import { emptyBitmap } from '../../src/core/cells/bitmap';
import { type LogFacts, logFactsOf } from '../../src/core/finish/logPage';
import { MARGIN_MM } from '../../src/core/print/page';
import { PAPERS } from '../../src/core/print/paper';
import { logTable } from '../../src/server/finish/out';
import { logPdf } from '../../src/server/finish/print';
import { chartOfRows, line, sampleCanvas } from '../core/samples';
import { words } from './pdfReader';

const facts = (more: Partial<LogFacts> = {}, title = 'Hills'): LogFacts => ({
  ...logFactsOf(sampleCanvas({ title, width: 60, height: 80 }), {
    ...{ colours: 2, drills: 4800, laid: 4800, startedOn: '2026-01-01', finishedOn: '2026-03-01' },
    ...{ minutes: 900, sittings: 20, notes: '', sealed: true },
  }),
  ...more,
});
const chart = chartOfRows(...Array.from({ length: 80 }, () => '12'.repeat(30)));
const picture = { chart, legend: [line(1), line(2)], laid: emptyBitmap(4800), width: 300 };
const photo = await sharp({ create: { width: 80, height: 60, channels: 3, background: '#aa3322' } })
  .jpeg()
  .toBuffer();

async function pagesOf(of: LogFacts, photos = 3, paper: 'a4' | 'letter' = 'a4') {
  const bytes = await logPdf({ facts: of, picture, photos: new Array(photos).fill(photo), paper });
  const { numPages } = await getDocument({ data: bytes.slice(), verbosity: 0 }).promise;
  const pages = [];
  for (let page = 1; page <= numPages; page++) pages.push(await words(bytes, page));
  return pages;
}

it.each(['a4', 'letter'] as const)(
  'a page of the log on %s loses no word of long notes, and prints none beyond its margins',
  async (paper) => {
    const told = Array.from({ length: 700 }, (_, i) => `w${i}`);
    const notes = `${told.slice(0, 300).join(' ')}\n${told.slice(300).join(' ')}`;
    const pages = await pagesOf(facts({ notes }), 3, paper);
    expect(pages.length).toBeGreaterThan(1);
    const printed = pages
      .flat()
      .flatMap(({ text }) => text.split(' '))
      .filter((word) => /^w\d+$/.test(word));
    expect(printed).toEqual(told);
    const { widthMm, heightMm } = PAPERS[paper];
    for (const { x, y, width } of pages.flat()) {
      expect(x).toBeGreaterThan(MARGIN_MM - 0.5);
      // What the reader takes for the width of a letter differs by a hair.
      expect(x + width).toBeLessThan(widthMm - MARGIN_MM + 2);
      expect(y).toBeLessThan(heightMm - MARGIN_MM + 0.5);
    }
  },
);

it('short notes stay on the one page, also beside photos', async () => {
  const [page, ...more] = await pagesOf(facts({ notes: 'A gift for the harbour.\nFramed in oak.' }));
  expect(more).toEqual([]);
  const texts = page!.map(({ text }) => text);
  for (const text of ['Hills', 'A gift for the harbour.', 'Framed in oak.', '4,800 drills, square', 'yes'])
    expect(texts).toContain(text);
  expect(await pagesOf(facts(), 0)).toHaveLength(1);
});

it('a long title goes on below itself, and a text without spaces is broken where the line ends', async () => {
  const [page] = await pagesOf(facts({ notes: '夜'.repeat(150) }, 'Lantern '.repeat(9).trim()));
  const above = page!.filter(({ text }) => text.startsWith('Lantern'));
  expect(above.length).toBeGreaterThan(1);
  expect(above.map(({ text }) => text).join(' ')).toBe('Lantern '.repeat(9).trim());
  const lines = page!.filter(({ text }) => text.startsWith('夜'));
  expect(lines.map(({ text }) => text).join('')).toBe('夜'.repeat(150));
  for (const { x, width } of lines) expect(x + width).toBeLessThan(PAPERS.a4.widthMm - MARGIN_MM + 2);
});

it('the table of the log has what each page says, and nothing where nothing is known', () => {
  const { header, rows } = logTable([
    facts({ notes: 'Framed' }),
    facts({ startedOn: null, finishedOn: null }),
  ]);
  const row = (i: number) => Object.fromEntries(header.map((name, column) => [name, rows[i]![column]]));
  expect(row(0)).toEqual({
    ...{ Title: 'Hills', Size: '15 × 20 cm (5.9 × 7.9 in)', Shape: 'square', Squares: '60 × 80' },
    ...{ Colours: 2, Drills: 4800, Laid: 4800, Begun: '2026-01-01', Finished: '2026-03-01' },
    ...{ Minutes: 900, Sittings: 20, Notes: 'Framed' },
  });
  expect(row(1)).toMatchObject({ Begun: '', Finished: '', Notes: '' });
});
