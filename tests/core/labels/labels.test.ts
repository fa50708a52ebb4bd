import fc from 'fast-check';
import jsQr from 'jsqr';
import { describe, expect, it } from 'vitest';
import { type LabelFacts, labelArt } from '../../../src/core/labels/art';
import { labelPages, testPage } from '../../../src/core/labels/pages';
import { colourAddress, qrPath } from '../../../src/core/labels/qr';
import {
  faultInSheet,
  LABEL_FORMATS,
  type LabelSheet,
  labelBoxes,
  printerOff,
  sheetsFor,
  usualSheet,
} from '../../../src/core/labels/sheet';
import type { FontMeasure, Mark } from '../../../src/core/print/drawing';
import { mmToPoints, PAPER_NAMES, PAPERS } from '../../../src/core/print/paper';
import { line } from '../samples';

/** Every letter as wide as 0.6 of its size, as in a font of one width. */
const fonts: FontMeasure = {
  widthOf: (text, _font, size) => [...text].length * 0.6 * size,
  canPrint: (text) => !text.includes('語'),
};

function facts(more: Partial<LabelFacts> = {}): LabelFacts {
  return {
    line: line(1),
    place: 'pot 17',
    warnsOf: null,
    address: 'HTTP://127.0.0.1:4470/Q/6F1D2A8E/17',
    leftover: null,
    ...more,
  };
}

describe('papers', () => {
  // ISO 216: A4 is 210 × 297 mm. US Letter: 8.5 × 11 in of 25.4 mm; an index card 5 × 3 in.
  it('have their published sizes', () => {
    expect([PAPERS.a4.widthMm, PAPERS.a4.heightMm]).toEqual([210, 297]);
    expect(PAPERS.letter.widthMm).toBeCloseTo(8.5 * 25.4, 10);
    expect(PAPERS.letter.heightMm).toBeCloseTo(11 * 25.4, 10);
    expect([PAPERS.card.widthMm, PAPERS.card.heightMm]).toEqual(
      [5 * 25.4, 3 * 25.4].map((n) => expect.closeTo(n, 10)),
    );
    expect(mmToPoints(25.4)).toBeCloseTo(72, 10);
  });
});

describe('label sheets', () => {
  it('start so that every label lies on the paper, whatever the paper', () => {
    for (const format of LABEL_FORMATS) {
      for (const paper of PAPER_NAMES)
        expect(faultInSheet(usualSheet(format, paper)), `${format} ${paper}`).toBeNull();
    }
  });

  it('cut an index card in six', () => {
    const six = usualSheet('cards');
    expect([six.columns, six.rows]).toEqual([3, 2]);
    expect(six.labelWidthMm * 3).toBeCloseTo(127, 6);
    expect(six.labelHeightMm * 2).toBeCloseTo(76.2, 6);
  });

  it('place labels row by row, from the first free place on, page after page', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...LABEL_FORMATS),
        fc.integer({ min: 1, max: 150 }),
        fc.integer({ min: 1, max: 40 }),
        (format, count, start) => {
          const sheet = usualSheet(format);
          const perPage = sheet.columns * sheet.rows;
          const startAt = Math.min(start, perPage);
          const boxes = labelBoxes(sheet, count, startAt);
          expect(new Set(boxes.map((box) => `${box.page} ${box.xMm} ${box.yMm}`)).size).toBe(count);
          expect(boxes.at(-1)!.page).toBe(Math.ceil((count + startAt - 1) / perPage) - 1);
          for (const box of boxes) {
            expect(box.xMm + box.widthMm).toBeLessThanOrEqual(PAPERS[sheet.paper].widthMm + 0.05);
            expect(box.yMm + box.heightMm).toBeLessThanOrEqual(PAPERS[sheet.paper].heightMm + 0.05);
          }
        },
      ),
    );
    const [first] = labelBoxes(usualSheet('pots'), 1, 5);
    // Three columns of 62 mm and gaps of 2: (210 − 190) ÷ 2 = 10 mm left; the fifth place is row 2, column 2.
    expect(first!.xMm).toBeCloseTo(10 + 64, 6);
  });

  it('are as many as the labels take', () => {
    expect(sheetsFor(usualSheet('cards'), 48, 1)).toBe(8);
    expect(sheetsFor(usualSheet('cards'), 48, 2)).toBe(9);
    expect(sheetsFor(usualSheet('cards'), 0, 1)).toBe(1);
  });

  it('say which edge they miss', () => {
    const wide: LabelSheet = { ...usualSheet('dots'), labelWidthMm: 40 };
    expect(faultInSheet(wide)).toContain('over the right edge of A4');
    expect(faultInSheet({ ...usualSheet('dots'), rows: 14 })).toContain('over the lower edge');
  });

  it('are moved back by what the printer is off', () => {
    expect(printerOff(21.3)).toBe(1.3);
    const chipX = (sheet: LabelSheet) => {
      const [page] = labelPages('pots', sheet, [facts()], { shape: 'square', title: 'T' }, fonts);
      return (page!.marks.find((mark) => mark.kind === 'rect') as { x: number }).x;
    };
    const sheet = usualSheet('pots');
    expect(chipX(sheet) - chipX({ ...sheet, printerOffXMm: 1.3 })).toBeCloseTo(1.3, 10);
    const cross = testPage('a4')
      .marks.filter((mark) => mark.kind === 'line')
      .slice(0, 2);
    expect(cross.map(({ x1, x2, y1, y2 }) => [(x1 + x2) / 2, (y1 + y2) / 2])).toEqual([
      [20, 20],
      [20, 20],
    ]);
  });

  it('mark where to cut: a circle, ticks in the gaps, or shared edges', () => {
    const cuts = (format: (typeof LABEL_FORMATS)[number], more: Partial<LabelSheet> = {}) => {
      const sheet = { ...usualSheet(format), ...more };
      const bare = { ...sheet, cutMarks: false };
      const count = (of: LabelSheet, kind: Mark['kind']) =>
        labelPages(format, of, [facts()], { shape: 'square', title: 'T' }, fonts)[0]!.marks.filter(
          (mark) => mark.kind === kind,
        ).length;
      return [count(sheet, 'circle') - count(bare, 'circle'), count(sheet, 'line') - count(bare, 'line')];
    };
    expect(cuts('dots')).toEqual([1, 0]);
    expect(cuts('pots')).toEqual([0, 8]);
    expect(cuts('cards')).toEqual([0, 4]);
  });
});

/** The box that a mark covers. */
function extent(mark: Mark): [left: number, top: number, right: number, bottom: number] {
  switch (mark.kind) {
    case 'rect':
      return [mark.x, mark.y, mark.x + mark.width, mark.y + mark.height];
    case 'circle':
      return [mark.x - mark.radius, mark.y - mark.radius, mark.x + mark.radius, mark.y + mark.radius];
    case 'line':
      return [Math.min(mark.x1, mark.x2), mark.y1, Math.max(mark.x1, mark.x2), mark.y2];
    case 'path':
      return [mark.x, mark.y, mark.x, mark.y];
    case 'text': {
      const width = fonts.widthOf(mark.text, mark.font, mark.size);
      const left = mark.anchor === 'middle' ? mark.x - width / 2 : mark.x;
      return [left, mark.y - mark.size * 0.7, left + width, mark.y];
    }
  }
}

describe('a label', () => {
  const odd = line(1, {
    code: 'MT12345678901234567890',
    name: 'A name that goes on and on and on for eighty letters, as nobody would ever write',
    finish: 'translucent',
    keyNumber: '12345678',
    neededDrills: 1_000_000,
  });

  it('keeps everything inside its box, at every size and with the longest words', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...LABEL_FORMATS),
        fc.double({ min: 16, max: 120, noNaN: true }),
        fc.double({ min: 12, max: 60, noNaN: true }),
        fc.boolean(),
        fc.constantFrom('square' as const, 'round' as const),
        (format, width, height, plain, shape) => {
          const label = facts({ line: plain ? line(1) : odd, warnsOf: plain ? null : line(2) });
          const box = { widthMm: width, heightMm: height };
          for (const mark of labelArt(format, label, box, shape, fonts)) {
            const [left, top, right, bottom] = extent(mark);
            // Print has a least size; where even that is too long, a single letter may stand out.
            if (mark.kind === 'text' && [...mark.text].length <= 2) continue;
            expect(left, JSON.stringify(mark)).toBeGreaterThanOrEqual(-1e-6);
            expect(top).toBeGreaterThanOrEqual(-1e-6);
            expect(right, JSON.stringify(mark)).toBeLessThanOrEqual(width + 1e-6);
            expect(bottom).toBeLessThanOrEqual(height + 1e-6);
          }
        },
      ),
    );
  });

  it('prints no part over another, at its usual sizes and with the longest words', () => {
    /** The parts of a label that must not touch: its drill, its QR code, its lines of words, its bar. */
    const parts = (marks: readonly Mark[], label: LabelFacts) => {
      const [chip] = marks.filter(({ kind }) => kind === 'rect' || kind === 'circle').map(extent);
      const onChip = ([left, top, right, bottom]: ReturnType<typeof extent>) =>
        left >= chip![0] && top >= chip![1] && right <= chip![2] && bottom <= chip![3];
      const others = marks.flatMap((mark): [string, ...ReturnType<typeof extent>][] => {
        if (mark.kind === 'path' && mark.fill === '#000000') {
          const side = mark.scale * qrPath(label.address!).size;
          return [['QR code', mark.x, mark.y, mark.x + side, mark.y + side]];
        }
        if (mark.kind === 'line') {
          const [left, top, right, bottom] = extent(mark);
          return [['bar', left, top - mark.width / 2, right, bottom + mark.width / 2]];
        }
        return mark.kind === 'text' && !onChip(extent(mark)) ? [[mark.text, ...extent(mark)]] : [];
      });
      return [['drill', ...chip!] as [string, ...ReturnType<typeof extent>], ...others];
    };
    let compared = 0;
    for (const format of LABEL_FORMATS) {
      for (const paper of PAPER_NAMES) {
        const { labelWidthMm: widthMm, labelHeightMm: heightMm, qr } = usualSheet(format, paper);
        for (const [of, warnsOf, leftover] of [
          [line(1), null, null],
          [line(1), line(2), null],
          [odd, line(2, { code: 'MT99999999999999999999' }), null],
          [odd, null, 12_345],
        ] as const) {
          const label = facts({ line: of, warnsOf, leftover, ...(qr ? {} : { address: null }) });
          const all = parts(labelArt(format, label, { widthMm, heightMm }, 'square', fonts), label);
          expect(all.length).toBeGreaterThan(3);
          all.forEach(([what, left, top, right, bottom], i) => {
            for (const [other, oLeft, oTop, oRight, oBottom] of all.slice(i + 1)) {
              const across = Math.min(right, oRight) - Math.max(left, oLeft);
              const down = Math.min(bottom, oBottom) - Math.max(top, oTop);
              const said = `${format} on ${paper}: “${what}” and “${other}”`;
              expect(across <= 0.01 || down <= 0.01, said).toBe(true);
              compared++;
            }
          });
        }
      }
    }
    expect(compared).toBeGreaterThan(500);
  });

  it('keeps the words of a dot inside its circle', () => {
    for (const diameter of [20, 25, 32, 40]) {
      for (const mark of labelArt(
        'dots',
        facts({ line: odd }),
        { widthMm: diameter, heightMm: diameter },
        'square',
        fonts,
      )) {
        if (mark.kind !== 'text' || [...mark.text].length <= 2) continue;
        const [left, top, right, bottom] = extent(mark);
        for (const [x, y] of [
          [left, top],
          [right, top],
          [left, bottom],
          [right, bottom],
        ] as const) {
          expect(Math.hypot(x - diameter / 2, y - diameter / 2), mark.text).toBeLessThanOrEqual(diameter / 2);
        }
      }
    }
  });

  const words = (format: (typeof LABEL_FORMATS)[number], label: LabelFacts) =>
    labelArt(
      format,
      label,
      { widthMm: usualSheet(format).labelWidthMm, heightMm: usualSheet(format).labelHeightMm },
      'square',
      fonts,
    )
      .filter((mark) => mark.kind === 'text')
      .map((mark) => mark.text);

  it('carries symbol, code, key number, place and drills in every format', () => {
    for (const format of LABEL_FORMATS) {
      const text = words(format, facts()).join(' | ').toLowerCase();
      for (const part of ['a', '401', '1', 'pot 17', '100']) expect(text, format).toContain(part);
    }
    expect(words('cards', facts()).join()).toContain('Colour 1');
    expect(words('pots', facts({ place: null })).join()).toContain('Key 1');
  });

  it('of leftovers carries code, name, shape and what is in the bag, and nothing that belongs to one canvas', () => {
    for (const format of LABEL_FORMATS) {
      const bag = facts({ line: line(1, { symbol: 'W' }), place: 'stash', leftover: 2375, address: null });
      const text = words(format, bag);
      for (const part of ['401', '2,375']) expect(text.join(' | '), format).toContain(part);
      for (const part of ['W', '1']) expect(text, format).not.toContain(part);
      expect(text.join(' | '), format).not.toMatch(/pot|key/i);
    }
    expect(words('strips', facts({ place: 'stash', leftover: 1 })).join()).toMatch(
      /1 drill left.*square drills/,
    );
  });

  it('prints the key number where no font has the symbol, and a drawing where there is one', () => {
    const label = facts({ line: line(1, { symbol: '語', keyNumber: '77' }) });
    expect(words('pots', label)).toContain('77');
    const drawn = labelArt(
      'pots',
      facts({ line: line(1, { drawing: 'M0 0L100 0L50 100Z' }), address: null }),
      { widthMm: 62, heightMm: 24 },
      'square',
      fonts,
    );
    expect(drawn.filter((mark) => mark.kind === 'path').map((mark) => mark.d)).toEqual([
      'M0 0L100 0L50 100Z',
    ]);
  });

  it('warns of the colour that it is taken for', () => {
    for (const format of LABEL_FORMATS)
      expect(words(format, facts({ warnsOf: line(2, { code: '402' }) }))).toContain('not 402');
  });

  it('has the symbol as its largest print', () => {
    for (const format of LABEL_FORMATS) {
      const sheet = usualSheet(format);
      const texts = labelArt(
        format,
        facts(),
        { widthMm: sheet.labelWidthMm, heightMm: sheet.labelHeightMm },
        'square',
        fonts,
      ).filter((mark) => mark.kind === 'text');
      const largest = texts.reduce((a, b) => (b.size > a.size ? b : a));
      expect(largest.text, format).toBe('A');
    }
  });
});

describe('the QR code', () => {
  const address = colourAddress('http://127.0.0.1:4470', '6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f02', 17);

  // Decoded by the library jsQR.
  it('is read again by another library', () => {
    expect(address).toBe('HTTP://127.0.0.1:4470/Q/2B9C4F02/17');
    const { size, d } = qrPath(address);
    // Version 2 has 25 modules; two more on each side stay quiet.
    expect(size).toBe(29);
    const scale = 6;
    const pixels = new Uint8ClampedArray(size * size * scale * scale * 4).fill(255);
    for (const [, x, y, length] of d.matchAll(/M(\d+) (\d+)h(\d+)/g)) {
      for (let px = Number(x) * scale; px < (Number(x) + Number(length)) * scale; px++) {
        for (let py = Number(y) * scale; py < (Number(y) + 1) * scale; py++)
          pixels.set([0, 0, 0], (py * size * scale + px) * 4);
      }
    }
    expect(jsQr(pixels, size * scale, size * scale)?.data).toBe(address);
  });
});

describe('where labels lie on their sheet', () => {
  const sheet: LabelSheet = {
    ...usualSheet('pots'),
    columns: 2,
    rows: 3,
    labelWidthMm: 60,
    labelHeightMm: 20,
    gapXMm: 4,
    gapYMm: 6,
    marginLeftMm: 10,
    marginTopMm: 15,
  };

  it('is column by column across and row by row down, with the gaps between them', () => {
    expect(labelBoxes(sheet, 7).map(({ page, xMm, yMm }) => [page, xMm, yMm])).toEqual([
      [0, 10, 15],
      [0, 74, 15],
      [0, 10, 41],
      [0, 74, 41],
      [0, 10, 67],
      [0, 74, 67],
      [1, 10, 15],
    ]);
  });

  it('may end with the paper to the twentieth of a millimetre', () => {
    // 60 + 4 + 60 = 124 mm wide, 3 × 20 + 2 × 6 = 72 mm high.
    expect(faultInSheet({ ...sheet, marginLeftMm: 96 })).toBe(
      'The labels reach 10.0 mm over the right edge of A4.',
    );
    expect(faultInSheet({ ...sheet, marginLeftMm: 86 })).toBeNull();
    expect(faultInSheet({ ...sheet, marginTopMm: 225 })).toBeNull();
    expect(faultInSheet({ ...sheet, marginTopMm: 226.5 })).toBe(
      'The labels reach 1.5 mm over the lower edge of A4.',
    );
  });

  it('is as full as the paper is, with room for the hand of a printer', () => {
    for (const format of LABEL_FORMATS) {
      for (const paper of PAPER_NAMES) {
        const usual = usualSheet(format, paper);
        const { widthMm, heightMm } = PAPERS[paper];
        const more = (columns: number, rows: number) =>
          faultInSheet({ ...usual, columns, rows, marginLeftMm: 0, marginTopMm: 0 });
        expect(faultInSheet(usual)).toBeNull();
        // Where cards fill the paper there is no margin; else one label more would use it up.
        const roomRight = widthMm - usual.columns * (usual.labelWidthMm + usual.gapXMm) + usual.gapXMm;
        const roomBelow = heightMm - usual.rows * (usual.labelHeightMm + usual.gapYMm) + usual.gapYMm;
        expect(usual.marginLeftMm).toBeCloseTo(roomRight / 2, 1);
        expect(usual.marginTopMm).toBeCloseTo(roomBelow / 2, 1);
        const least = paper === 'card' ? 8 : 14;
        expect(
          more(usual.columns + 1, usual.rows) !== null || roomRight < 2 * least + usual.labelWidthMm,
        ).toBe(true);
        expect(
          more(usual.columns, usual.rows + 1) !== null || roomBelow < 2 * least + usual.labelHeightMm,
        ).toBe(true);
      }
    }
  });

  it('has a code to scan and lines to cut where they help', () => {
    const which = Object.fromEntries(LABEL_FORMATS.map((format) => [format, usualSheet(format)]));
    expect(LABEL_FORMATS.filter((format) => which[format]!.qr)).toEqual(['pots', 'cards', 'strips']);
    expect(LABEL_FORMATS.filter((format) => which[format]!.cutMarks)).toEqual([
      'dots',
      'pots',
      'cards',
      'strips',
    ]);
  });
});

describe('lines to cut along', () => {
  const kit = { shape: 'square', title: 'Harbour at Dusk' } as const;
  const CUT = '#857a69';
  const base: LabelSheet = {
    ...usualSheet('pots'),
    columns: 2,
    rows: 2,
    labelWidthMm: 60,
    labelHeightMm: 20,
    gapXMm: 3,
    gapYMm: 5,
    marginLeftMm: 10,
    marginTopMm: 15,
    qr: false,
  };
  const cuts = (sheet: LabelSheet, format: 'pots' | 'dots' = 'pots') =>
    labelPages(format, sheet, [facts()], kit, fonts)[0]!.marks.filter(
      (mark) => (mark.kind === 'line' || mark.kind === 'circle') && mark.stroke === CUT,
    );

  it('are ticks that reach half of the gap out from each corner, two millimetres at most', () => {
    const ticks = cuts(base).map((mark) => mark.kind === 'line' && [mark.x1, mark.y1, mark.x2, mark.y2]);
    expect(ticks).toEqual([
      [10, 15, 9, 15],
      [10, 15, 10, 14],
      [10, 35, 9, 35],
      [10, 35, 10, 36],
      [70, 15, 71, 15],
      [70, 15, 70, 14],
      [70, 35, 71, 35],
      [70, 35, 70, 36],
    ]);
    const narrow = cuts({ ...base, gapXMm: 1, gapYMm: 0.5 }).map(
      (mark) => mark.kind === 'line' && [mark.x2 - mark.x1, mark.y2 - mark.y1],
    );
    expect(narrow.slice(0, 2)).toEqual([
      [-0.5, 0],
      [0, -0.25],
    ]);
  });

  it.each([{ gapXMm: 0 }, { gapYMm: 0 }])('are whole edges where labels share them (%j)', (gap) => {
    const edges = cuts({ ...base, ...gap }).map(
      (mark) => mark.kind === 'line' && [mark.x1, mark.y1, mark.x2, mark.y2],
    );
    expect(edges).toEqual([
      [10, 15, 70, 15],
      [10, 35, 70, 35],
      [10, 15, 10, 35],
      [70, 15, 70, 35],
    ]);
  });

  it('are the circle of a dot, and none where they are not wished', () => {
    const dot = { ...base, labelWidthMm: 25, labelHeightMm: 30 };
    expect(cuts(dot, 'dots')).toEqual([{ kind: 'circle', x: 22.5, y: 27.5, radius: 12.5, stroke: CUT }]);
    expect(cuts({ ...base, cutMarks: false })).toEqual([]);
  });

  it('move with all else against the printer’s error', () => {
    const [off] = cuts({ ...base, printerOffXMm: 1.5, printerOffYMm: -0.5 });
    expect(off).toMatchObject({ x1: 8.5, y1: 15.5 });
  });

  it('make no page of nothing but the head of a list, which stands on every page', () => {
    const list = { ...usualSheet('list'), rows: 2 };
    const pages = labelPages('list', list, [facts(), facts(), facts()], kit, fonts);
    expect(pages).toHaveLength(2);
    for (const { marks } of pages) {
      const head = marks
        .flatMap((mark) => (mark.kind === 'text' ? [mark] : []))
        .filter((mark) => mark.y < list.marginTopMm);
      expect(head[0]).toMatchObject({
        text: 'Harbour at Dusk',
        x: list.marginLeftMm,
        size: 4.6,
        font: 'words',
      });
      // Columns begin in their order, under the title and above the first row.
      const columns = head.slice(1);
      expect(columns.length).toBeGreaterThan(2);
      for (const [i, { x, y }] of columns.entries()) {
        expect(y).toBeGreaterThan(head[0]!.y);
        expect(x).toBeGreaterThanOrEqual(i === 0 ? list.marginLeftMm : columns[i - 1]!.x + 1);
        expect(x).toBeLessThan(list.marginLeftMm + list.labelWidthMm);
      }
    }
    expect(labelPages('pots', base, [], kit, fonts)).toEqual([{ widthMm: 210, heightMm: 297, marks: [] }]);
  });
});

describe('the test page of a printer', () => {
  it.each([
    ['a4', 100],
    ['letter', 100],
    ['card', 90],
  ] as const)('of %s has a cross at 20 mm and a bar of %i mm with a tick a centimetre', (paper, length) => {
    const { marks, widthMm, heightMm } = testPage(paper);
    expect([widthMm, heightMm]).toEqual([PAPERS[paper].widthMm, PAPERS[paper].heightMm]);
    const lines = marks.flatMap((mark) =>
      mark.kind === 'line' ? [[mark.x1, mark.y1, mark.x2, mark.y2]] : [],
    );
    expect(lines.slice(0, 2)).toEqual([
      [12, 20, 28, 20],
      [20, 12, 20, 28],
    ]);
    const [bar, ...ticks] = lines.slice(2);
    expect(bar).toEqual([20, 56, 20 + length, 56]);
    expect(ticks).toEqual(
      Array.from({ length: length / 10 + 1 }, (_, i) => [20 + 10 * i, 54, 20 + 10 * i, 58]),
    );
    const texts = marks.flatMap((mark) => (mark.kind === 'text' ? [mark] : []));
    expect(texts.at(-1)!.text).toContain(`This bar is ${length} mm long.`);
    // Words lie under the cross and beside the bar, on none of the lines.
    expect(texts.map(({ y }) => y)).toEqual([36, 42, 65]);
    for (const { x } of texts) expect(x).toBe(28);
  });
});
