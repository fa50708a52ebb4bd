import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { CountedBag } from '../../../src/core/checkin/bag';
import { sheetFindings } from '../../../src/core/checkin/sheetSanity';
import { matchStrays, oneSignOff } from '../../../src/core/checkin/strays';
import { supplyOf } from '../../../src/core/checkin/supply';
import { line } from '../samples';

const canvas = { width: 20, height: 20, packetDrills: 200 };
const sound = [line(1, { neededDrills: 300, packets: 2 }), line(2, { neededDrills: 100, packets: 1 })];

describe('a sheet before the first bag', () => {
  it('that adds up has nothing to say', () => {
    expect(sheetFindings(canvas, sound, null)).toEqual([]);
    expect(sheetFindings(canvas, sound, Uint32Array.of(0, 300, 100))).toEqual([]);
    expect(sheetFindings(canvas, [], null)).toEqual([]);
  });

  it.each([
    [
      'too many',
      [line(1, { neededDrills: 450, packets: 3 })],
      null,
      'sum',
      '450 drills, but the canvas has 400 squares',
      '50 drills more than there is room for',
    ],
    [
      'too few',
      [line(1, { neededDrills: 350, packets: 2 })],
      null,
      'sum',
      '350 drills, but the canvas has 400 squares',
      'leaves 50 squares bare',
    ],
    [
      'bare cells',
      [line(1, { neededDrills: 350, packets: 2 })],
      Uint32Array.of(40, 360),
      'sum',
      'the chart wants 360, 40 squares being bare',
      '10 drills too few',
    ],
    [
      'packets',
      [line(1, { neededDrills: 400, packets: 1 })],
      null,
      'packets',
      '401 needs 400, but 1 bag of 200 hold 200',
      'It takes 2 bags of this size',
    ],
    [
      'nothing',
      [...sound, line(3, { neededDrills: 0, packets: 0 })],
      null,
      'nothing',
      '403: neither drills nor bags',
      'can be counted, but not checked',
    ],
  ] as const)('says %s', (_, legend, onChart, kind, sentence, meaning) => {
    const finding = sheetFindings(canvas, legend, onChart).find((each) => each.kind === kind)!;
    expect(finding.sentence).toContain(sentence);
    expect(finding.meaning).toContain(meaning);
  });

  it('is held against the chart colour by colour', () => {
    const findings = sheetFindings(canvas, sound, Uint32Array.of(0, 310, 90));
    expect(findings.map((each) => [each.kind, each.sentence])).toEqual([
      ['chart', '401: the list says 300, the chart has 310.'],
      ['chart', '402: the list says 100, the chart has 90.'],
    ]);
    expect(findings[0]!.meaning).toContain('asks for 10 too few');
  });

  it('names codes and symbols that stand twice', () => {
    const legend = [
      line(1, { neededDrills: 200, symbol: '★' }),
      line(2, { code: '401', finish: 'metallic', neededDrills: 200, symbol: '★' }),
    ];
    const kinds = sheetFindings(canvas, legend, null);
    expect(kinds.map((each) => each.sentence)).toEqual([
      'Code 401 is in the list 2 times (plain, metallic).',
      'Symbol ★ stands for 401 and 401.',
    ]);
  });

  it('misses key numbers in the row', () => {
    const legend = [line(1, { neededDrills: 300, packets: 2, keyNumber: '1' }), line(2, { keyNumber: '4' })];
    expect(sheetFindings(canvas, legend, null)[0]).toMatchObject({
      kind: 'key',
      sentence: 'Key numbers 2, 3 are missing between 1 and 4.',
    });
    expect(sheetFindings(canvas, [line(1, { neededDrills: 400, packets: 2, keyNumber: 'A' })], null)).toEqual(
      [],
    );
  });
});

describe('strays', () => {
  const legend = [
    line(1, { code: '412', packets: 1 }),
    line(2, { code: '517', packets: 1 }),
    line(3, { code: '1204', packets: 2 }),
  ];
  const bag = (id: string, number: number | null, label: string): CountedBag => ({
    id,
    line: number,
    label,
    drills: 200,
    how: 'nominal',
    spread: 6,
    shared: [],
    origin: 'kit',
  });
  const matches = (bags: CountedBag[]) =>
    matchStrays(bags, legend, supplyOf(legend, bags, 200)).map(({ bagId, line: to, as }) => [bagId, to, as]);

  it('one sign off a line that lacks a bag look like a misread', () => {
    expect(matches([bag('s', null, '417')])).toEqual([
      ['s', 1, 'misread'],
      ['s', 2, 'misread'],
    ]);
    expect(matches([bag('s', null, '1024')])).toEqual([['s', 3, 'misread']]);
  });

  it('are not matched to a line that has all its bags', () => {
    expect(matches([bag('a', 1, '412'), bag('b', 2, '517'), bag('s', null, '413')])).toEqual([
      ['s', 3, 'substitute'],
    ]);
    expect(
      matches([
        bag('a', 1, '412'),
        bag('b', 2, '517'),
        bag('c', 3, '1204'),
        bag('d', 3, '1204'),
        bag('s', null, '413'),
      ]),
    ).toEqual([]);
  });

  it('near no code are a substitute only where one line is left to fill', () => {
    expect(matches([bag('s', null, '3717')])).toEqual([]);
    expect(
      matches([bag('a', 1, '412'), bag('c', 3, '1204'), bag('d', 3, '1204'), bag('s', null, '3717')]),
    ).toEqual([['s', 2, 'substitute']]);
  });

  it.each([
    ['412', '413', true],
    ['412', '421', true],
    ['412', '4112', true],
    ['412', '42', true],
    ['412', '412', false],
    ['412', '143', false],
    ['412', '41233', false],
    ['', '1', true],
  ])('“%s” and “%s”: %s', (a, b, off) => expect(oneSignOff(a, b)).toBe(off));

  it('are one sign off both ways, and every single change is seen', () => {
    const word = fc.stringMatching(/^\d{1,5}$/);
    fc.assert(
      fc.property(word, word, (a, b) => {
        expect(oneSignOff(a, b)).toBe(oneSignOff(b, a));
      }),
    );
    fc.assert(
      fc.property(word, fc.nat(4), fc.constantFrom(...'0123456789'), (text, at, digit) => {
        const place = at % text.length;
        const changed = text.slice(0, place) + digit + text.slice(place + 1);
        expect(oneSignOff(text, changed)).toBe(changed !== text);
        expect(oneSignOff(text, text.slice(0, place) + digit + text.slice(place))).toBe(true);
      }),
    );
  });
});
