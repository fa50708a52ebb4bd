import { describe, expect, it } from 'vitest';
import { chosenLabels, inPrintOrder, leftoverLabels } from '../../../src/core/labels/chosen';
import { line } from '../samples';

const pots = [
  { place: 'bag 1', line: line(5, { code: '98' }) },
  { place: 'pot 10', line: line(4, { code: 'SH7' }) },
  { place: 'pot 2', line: line(3, { code: '412' }) },
  { place: 'pot 1', line: line(1, { code: '1204' }) },
  { place: 'pot 3', line: line(2, { code: '88' }) },
];
const ordered = inPrintOrder(pots, 'all');

describe('which colours get a label', () => {
  it('are all, those in pots, or those in bags', () => {
    const places = (which: 'all' | 'pots' | 'bags') => inPrintOrder(pots, which).map(({ place }) => place);
    expect(places('all')).toHaveLength(5);
    expect(places('pots')).toEqual(['pot 1', 'pot 2', 'pot 3', 'pot 10']);
    expect(places('bags')).toEqual(['bag 1']);
    const bags = [
      { place: 'bag 10', line: line(1) },
      { place: 'bag 9', line: line(2) },
    ];
    expect(inPrintOrder(bags, 'all').map(({ place }) => place)).toEqual(['bag 9', 'bag 10']);
  });

  it('are those in the stash, in the order of their codes', () => {
    const legend = [line(1, { code: '1204' }), line(2, { code: '98' }), line(3, { code: '5' })];
    expect(leftoverLabels(legend, [1, 2])).toEqual([
      { place: 'stash', line: legend[1] },
      { place: 'stash', line: legend[0] },
    ]);
    expect(leftoverLabels(legend, [])).toEqual([]);
  });
});

describe('labels to print again', () => {
  it('lie in the order of their places, pots before bags', () => {
    expect(ordered.map(({ place }) => place)).toEqual(['pot 1', 'pot 2', 'pot 3', 'pot 10', 'bag 1']);
    expect(inPrintOrder(pots, 'bags').map(({ place }) => place)).toEqual(['bag 1']);
  });

  it.each([
    ['412', ['412']],
    ['98, 1204', ['1204', '98']],
    ['pot 2 - pot 10', ['412', '88', 'SH7']],
    ['88–1204', ['1204', '412', '88']],
    ['sh 7; 98', ['SH7', '98']],
    ['412,, ;', ['412']],
    ['pot 10 to pot 3', ['88', 'SH7']],
    ['pot 3-pot 3', ['88']],
  ])('“%s” names %j', (wish, codes) =>
    expect(chosenLabels(wish, ordered).map((label) => label.line.code)).toEqual(codes),
  );

  it('codes may have dashes of their own', () => {
    const dashed = ['B-1', 'B-2', 'B-3', 'C-1'].map((code, i) => ({
      place: `pot ${i + 1}`,
      line: line(i + 1, { code }),
    }));
    const codes = (wish: string) => chosenLabels(wish, dashed).map((label) => label.line.code);
    expect(codes('B-2')).toEqual(['B-2']);
    expect(codes('B-1 - B-3')).toEqual(['B-1', 'B-2', 'B-3']);
    expect(codes('C-1 to B-3, B-1')).toEqual(['B-1', 'B-3', 'C-1']);
    expect(() => codes('B-1 - moss')).toThrow('“B-1 - moss” is no label here');
  });

  it('says which word is none', () => {
    expect(() => chosenLabels('412, moss', ordered)).toThrow('“moss” is no label here');
  });
});
