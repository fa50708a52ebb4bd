import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { asCanvas } from '../../../src/core/canvas/canvas';
import type { CountedBag } from '../../../src/core/checkin/bag';
import { chanceOfRunningOut, TRASH_START } from '../../../src/core/checkin/chance';
import { supplyOf } from '../../../src/core/checkin/supply';
import { differenceInWords } from '../../../src/core/colour/difference';
import { sizeInWordsAgainst } from '../../../src/core/inspection/inspection';
import {
  requestCsv,
  requestLines,
  requestText,
  stillWanting,
  toAsk,
} from '../../../src/core/requests/supplierRequest';
import { coverFinder, type StashItem } from '../../../src/core/stash/cover';
import { line } from '../samples';

const canvas = asCanvas({
  id: 'c',
  title: 'Two hills',
  shape: 'square',
  pitchMm: 2.5,
  bagsCarry: null,
  width: 120,
  height: 160,
  panels: 1,
  symbolsPrinted: true,
  packetDrills: 200,
});
const legend = [
  line(1, { code: '1204', neededDrills: 500, packets: 3 }),
  line(2, { code: '98', neededDrills: 100, packets: 1 }),
  line(3, { code: 'SH7', neededDrills: 150, packets: 1, finish: 'iridescent' }),
];
const bag = (number: number, drills = 200): CountedBag => ({
  id: `${number} ${drills}`,
  line: number,
  label: '',
  drills,
  how: 'nominal',
  spread: 2,
  shared: [],
  origin: 'kit',
});
const lines = (bags: CountedBag[], states = new Map<number, 'asked' | 'promised' | 'arrived'>()) =>
  requestLines(legend, supplyOf(legend, bags, 200), states, TRASH_START);

describe('a request to the seller', () => {
  it('lists what may run out, in code order, with enough to ask for', () => {
    const [most, special] = lines([bag(1), bag(2)]);
    expect([most, special].map((each) => [each!.line.code, each!.bagsMissing, each!.state])).toEqual([
      ['1204', 2, null],
      ['SH7', 1, null],
    ]);
    // 500 good ones take 516 with 3 % bad ones among them; to be safe it is more.
    expect(most!.shortDrills).toBeGreaterThan(516 - 200);
    const chanceOf = chanceOfRunningOut(TRASH_START);
    const [supply] = supplyOf(legend, [bag(1)], 200);
    const withMore = (more: number) =>
      chanceOf(500, { drills: 200 + more, spread: Math.hypot(supply!.fromSeller.spread, 0.03 * more) });
    expect(withMore(most!.shortDrills)).toBeLessThan(0.05);
    expect(withMore(most!.shortDrills - 1)).toBeGreaterThanOrEqual(0.05);
  });

  it('asks for a colour that is only just enough, and claims no bag where its drills are here', () => {
    const tight = lines([bag(1, 510), bag(2), bag(3)]).find((each) => each.line.line === 1)!;
    expect(tight.shortDrills).toBeGreaterThan(0);
    expect(requestText(canvas, [tight], 'today')).toMatch(
      /510 received of 500 needed, too few to allow for bad drills, 1 bag missing, please send at least \d/,
    );
    expect(lines([bag(1, 1000), bag(2), bag(3)])).toEqual([]);
  });

  it('reckons with what the seller sent alone, and leaves the rest out of the letter', () => {
    const own: CountedBag = { ...bag(1, 400), id: 's', origin: 'stash', how: 'counted', spread: 0 };
    const [each] = lines([bag(1), own, bag(2), bag(3)]);
    expect(each).toMatchObject({ receivedDrills: 200, bagsMissing: 2, lackingDrills: 0 });
    expect(each!.shortDrills).toBeGreaterThan(300);
    expect([toAsk([each!]).length, stillWanting([each!]).length]).toEqual([1, 0]);
    expect(requestText(canvas, [each!], 'today')).toContain('200 received of 500 needed, 2 bags missing');
  });

  it('does not ask the seller for a finish of the user’s own choice', () => {
    const chosen = [...legend, line(4, { code: 'G1', neededDrills: 80, packets: 0, origin: 'own' })];
    const all = requestLines(
      chosen,
      supplyOf(chosen, [bag(1, 1000), bag(2), bag(3)], 200),
      new Map(),
      TRASH_START,
    );
    expect(all.map((each) => [each.line.code, each.shortDrills])).toEqual([['G1', 0]]);
    expect(all[0]!.lackingDrills).toBeGreaterThan(80);
    expect(toAsk(all)).toEqual([]);
  });

  it('is cleared by a bag that arrives', () => {
    const states = new Map([[3, 'promised' as const]]);
    expect(lines([bag(1), bag(2)], states).find((each) => each.line.line === 3)!.state).toBe('promised');
    const after = lines([bag(1), bag(2), bag(3)], states);
    expect(after.find((each) => each.line.line === 3)).toMatchObject({ state: 'arrived', shortDrills: 0 });
    expect(toAsk(after).map((each) => each.line.code)).toEqual(['1204']);
  });

  it('names title, size, codes, needed, received and short in the letter', () => {
    const text = requestText(canvas, lines([bag(1), bag(2)]), '25 November 2026');
    expect(text).toContain('Date: 25 November 2026');
    expect(text).toContain('“Two hills” (120 × 160 squares, 30 × 40 cm (11.8 × 15.7 in), square drills)');
    const [most, special] = lines([bag(1), bag(2)]);
    expect(text).toContain(
      `- 1204 (key 1): 200 received of 500 needed, 2 bags missing, please send at least ${most!.shortDrills}`,
    );
    expect(text).toContain(
      `- SH7 (key 3, iridescent): 0 received of 150 needed, 1 bag missing, please send at least ${special!.shortDrills}`,
    );
  });

  it('is a letter that can be sent as it is', () => {
    const [most] = lines([bag(1), bag(2), bag(3)]);
    expect(requestText(canvas, [most!], '1 May 2026').split('\n')).toEqual([
      'Date: 1 May 2026',
      '',
      'Hello,',
      '',
      'my kit “Two hills” (120 × 160 squares, 30 × 40 cm (11.8 × 15.7 in), square drills) arrived with too few drills of these colours:',
      '',
      `- 1204 (key 1): 200 received of 500 needed, 2 bags missing, please send at least ${most!.shortDrills}`,
      '',
      'Could you send these to me? Thank you.',
    ]);
    // Lots of a thousand are set in groups; no bag is named where none is missing.
    const large = requestText(canvas, [{ ...most!, bagsMissing: 0, shortDrills: 1234 }], 'today');
    expect(large).toContain('200 received of 500 needed, please send at least 1,234\n');
  });

  it('asks for what ran out at the bench as it is known, though enough was sent by number', () => {
    const bags = [bag(1, 1000), bag(2), bag(3)];
    const at = (known: number) =>
      requestLines(legend, supplyOf(legend, bags, 200), new Map(), TRASH_START, new Map([[2, known]]));
    const [each, ...others] = at(37);
    expect(others).toEqual([]);
    expect(each).toMatchObject({
      ranOut: true,
      shortDrills: 37,
      lackingDrills: 37,
      bagsMissing: 0,
      state: null,
    });
    expect(requestText(canvas, [each!], 'today')).toContain(
      '- 98 (key 2): 200 received of 100 needed, it ran out while I was laying it, please send at least 37',
    );
    expect(at(0)).toEqual([]);
  });

  it('goes on to the next colour once one has arrived', () => {
    const states = new Map([[1, 'arrived' as const]]);
    const [first] = lines([bag(2), bag(3)], states);
    expect(first).toMatchObject({ state: 'arrived', line: { code: '1204' } });
    expect(first!.shortDrills).toBeGreaterThan(0);
    expect(toAsk([first!])).toEqual([]);
    expect(stillWanting([first!])).toHaveLength(1);
  });

  it('asks for no more than makes running out unlikely, however little is needed', () => {
    const few = [line(1, { code: '7', neededDrills: 1, packets: 1 })];
    const [each] = requestLines(few, supplyOf(few, [], 200), new Map(), TRASH_START);
    const chance = chanceOfRunningOut(TRASH_START);
    const spread = (more: number) => ({ drills: more, spread: 0.03 * more });
    expect(chance(1, spread(each!.shortDrills))).toBeLessThan(0.05);
    expect(each!.shortDrills === 1 || chance(1, spread(each!.shortDrills - 1)) >= 0.05).toBe(true);
  });

  it('is a table with a row for every colour', () => {
    const states = new Map([[3, 'promised' as const]]);
    const told = lines([bag(2)], states);
    const drawn = told.map((each) => ({ ...each, line: { ...each.line, symbol: null } }));
    expect(Papa.parse(requestCsv(canvas, drawn)).data).toEqual([
      [
        ...['Title', 'Size', 'Key number', 'Symbol', 'Colour code', 'Finish'],
        ...['Drills needed', 'Received', 'To send', 'Bags missing', 'State'],
      ],
      [
        ...['Two hills', '30 × 40 cm (11.8 × 15.7 in)', '1', '', '1204', 'plain'],
        ...['500', '0', String(told[0]!.shortDrills), '3', 'not asked'],
      ],
      [
        ...['Two hills', '30 × 40 cm (11.8 × 15.7 in)', '3', '', 'SH7', 'iridescent'],
        ...['150', '0', String(told[1]!.shortDrills), '1', 'promised'],
      ],
    ]);
    // A title that a spreadsheet would run is taken as words.
    const evil = asCanvas({ ...canvas, title: '=1+1' });
    expect(requestCsv(evil, told)).toContain("'=1+1");
  });

  it('says the same as CSV', () => {
    const { data } = Papa.parse<Record<string, string>>(requestCsv(canvas, lines([bag(2)])), {
      header: true,
    });
    expect(data[0]).toMatchObject({
      Title: 'Two hills',
      'Colour code': '1204',
      'Drills needed': '500',
      Received: '0',
      'To send': String(lines([bag(2)])[0]!.shortDrills),
      State: 'not asked',
    });
  });
});

describe('covering from the stash', () => {
  const item = (more: Partial<StashItem>): StashItem => ({
    id: 'i',
    code: '55',
    name: '',
    hex: '#2f6f8f',
    finish: 'plain',
    shape: 'square',
    drills: 100,
    ...more,
  });
  const wanted = line(1, { code: '412', hex: '#2f6f8f' });

  it('offers the same code first, then the nearest colours', () => {
    const stash = [
      item({ id: 'near', hex: '#336f8c' }),
      item({ id: 'same', code: '412', hex: null }),
      item({ id: 'nearer', hex: '#2f6f90' }),
      item({ id: 'far', hex: '#ff0000' }),
      item({ id: 'round', code: '412', shape: 'round' }),
      item({ id: 'none', code: '412', drills: 0 }),
    ];
    const offers = coverFinder(stash, 'square').offers(wanted, 80);
    expect(offers.map((offer) => [offer.item.id, offer.as])).toEqual([
      ['same', 'same'],
      ['nearer', 'near'],
      ['near', 'near'],
    ]);
    expect(offers[1]!.inWords).toBe('cannot be told apart by eye');
  });

  it('says when the finish differs and when there is not enough', () => {
    const [offer] = coverFinder([item({ code: '412', finish: 'metallic' })], 'square').offers(wanted, 500);
    expect(offer).toMatchObject({ as: 'near', enough: false });
    expect(offer!.inWords).toContain('but metallic instead of plain');
  });

  it('tells a difference in words', () => {
    expect([0.5, 1.5, 3, 5, 9].map(differenceInWords)).toEqual([
      'cannot be told apart by eye',
      'seen only side by side',
      'a shade apart',
      'clearly another shade',
      'a different colour of the same kind',
    ]);
  });
});

describe('a measured canvas', () => {
  // Common practice, no source: cells ÷ 4 = centimetres at 2.5 mm.
  it('is held against the size that its cells make', () => {
    expect(sizeInWordsAgainst({ widthCm: 30.1, heightCm: 40 }, canvas)).toContain(
      '30 × 40 cm; 30.1 × 40 cm is well within',
    );
    expect(sizeInWordsAgainst({ widthCm: 28, heightCm: 41.5 }, canvas)).toBe(
      '120 × 160 squares should measure 30 × 40 cm; its width is 2.0 cm too small and its height is 1.5 cm too large.',
    );
  });
});
