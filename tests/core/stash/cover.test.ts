import { describe, expect, it } from 'vitest';
import { coverOffers, drillsToTake, type StashItem } from '../../../src/core/stash/cover';
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
const ids = (stash: StashItem[]) => coverOffers(lacking, 'square', 50, stash).map((offer) => offer.item.id);

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
    const [offer] = coverOffers(lacking, 'square', 50, [item('a', { code: '401', drills: 30 })]);
    expect(offer).toMatchObject({ as: 'same', enough: false });
    expect([drillsToTake(offer!, 50), drillsToTake(offer!, 10)]).toEqual([30, 10]);
  });
});
