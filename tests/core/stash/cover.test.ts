import Color from 'colorjs.io';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { coverFinder, drillsToTake, type StashItem } from '../../../src/core/stash/cover';
import { line } from '../samples';

const item = (id: string, more: Partial<StashItem>): StashItem => ({
  id,
  code: '900',
  name: '',
  hex: '#2f6f8f',
  finish: 'plain',
  shape: 'square',
  drills: 100,
  ...more,
});
const lacking = line(1, { code: '401', hex: '#2f6f8f' });
const ids = (stash: StashItem[]) =>
  coverFinder(stash, 'square')
    .offers(lacking, 50)
    .map((offer) => offer.item.id);

describe('cover from the stash', () => {
  it('is the same code first, then near colours, another finish behind a like one', () => {
    const stash = [
      item('other finish', { finish: 'glow' }),
      item('near', { hex: '#2f6f93' }),
      item('same', { code: '401' }),
      item('same code, other finish', { code: '401', finish: 'metallic' }),
    ];
    expect(ids(stash)[0]).toBe('same');
    expect(ids(stash)[1]).toBe('near');
    expect(ids(stash)).toHaveLength(4);
  });

  it('leaves out another shape, what is used up, and what is far off', () => {
    expect(
      ids([
        item('round', { shape: 'round' }),
        item('empty', { drills: 0 }),
        item('far', { hex: '#ff0000' }),
        item('no colour', { hex: null }),
      ]),
    ).toEqual([]);
  });

  it('is at most four offers, and takes what is short or what is there', () => {
    const many = Array.from({ length: 6 }, (_, i) => item(String(i), { drills: 20 + i }));
    expect(ids(many)).toHaveLength(4);
    const [offer] = coverFinder([item('a', { code: '401', drills: 30 })], 'square').offers(lacking, 50);
    expect(offer).toMatchObject({ as: 'same', enough: false });
    expect([drillsToTake(offer!, 50), drillsToTake(offer!, 10)]).toEqual([30, 10]);
  });

  it('is the nearest that there are, as a second library (colorjs.io) measures each of them', () => {
    const hex = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`);
    // Close together too, so that more than four are near.
    const shade = fc.integer({ min: 0, max: 4095 }).map((n) => `#8${n.toString(16).padStart(3, '0')}7f`);
    const leftover = fc.record({
      hex: fc.oneof(hex, shade, fc.constant(null)),
      code: fc.constantFrom('401', '900', '901'),
      finish: fc.constantFrom('plain' as const, 'glow' as const),
      shape: fc.constantFrom('square' as const, 'square' as const, 'round' as const),
      drills: fc.integer({ min: 0, max: 9 }),
    });
    // Its own ΔE2000 takes colours under D50; here both are measured under D65.
    const measured = (colour: string) => new Color('lab', new Color(colour).to('lab-d65').coords);
    fc.assert(
      fc.property(fc.array(leftover, { maxLength: 60 }), fc.oneof(hex, shade), (all, wanted) => {
        const stash = all.map((each, i) => item(String(i), each));
        const asked = line(1, { code: '401', hex: wanted });
        const ranks = stash.flatMap((each) => {
          if (each.shape !== 'square' || each.drills === 0) return [];
          if (each.code === '401' && each.finish === 'plain') return [-1000];
          if (each.hex === null) return [];
          const difference = measured(each.hex).deltaE(measured(wanted), '2000');
          // Which side of the limit it lies on is not asked.
          fc.pre(Math.abs(difference - 10) > 0.01);
          return difference > 10 ? [] : [difference + (each.finish === 'plain' ? 0 : 5)];
        });
        const offers = coverFinder(stash, 'square').offers(asked, 5);
        const found = offers.map(({ as, difference, item: { finish } }) =>
          as === 'same' ? -1000 : difference! + (finish === 'plain' ? 0 : 5),
        );
        const best = ranks.sort((a, b) => a - b).slice(0, 4);
        expect(found).toHaveLength(best.length);
        for (const [i, rank] of best.entries()) expect(found[i]).toBeCloseTo(rank, 2);
      }),
      { numRuns: 300 },
    );
  });
});
