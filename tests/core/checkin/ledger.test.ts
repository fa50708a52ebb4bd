import { describe, expect, it } from 'vitest';
import type { CountedBag } from '../../../src/core/checkin/bag';
import { withAnswer } from '../../../src/core/checkin/bagAnswer';
import {
  type BagRow,
  type DatedBagRow,
  laterOnSameBag,
  linesOfEntry,
  listedBags,
  standingBags,
} from '../../../src/core/checkin/bagLedger';
import { goodDrills, lacks, leftover, mayRunOut, shareHere } from '../../../src/core/checkin/lacking';
import { supplyOf } from '../../../src/core/checkin/supply';
import { line } from '../samples';

const row = (id: string, more: Partial<BagRow>): BagRow => ({
  id,
  kind: 'count',
  line: 1,
  label: '401',
  drills: 200,
  how: 'nominal',
  spread: null,
  shared: [],
  origin: 'kit',
  subject: null,
  undoes: null,
  redoes: null,
  ...more,
});

describe('the bag ledger', () => {
  it('counts what stands, in the order of counting', () => {
    const { bags, standing } = standingBags([
      row('a', {}),
      row('b', { line: 2, how: 'weighed', spread: 4 }),
      row('c', { kind: 'take back', undoes: 'a' }),
      row('d', { redoes: 'a' }),
    ]);
    expect(bags.map(({ id }) => id)).toEqual(['b', 'd']);
    expect(bags[0]).toMatchObject({ line: 2, spread: 4 });
    expect(bags[1]!.spread).toBeGreaterThan(0);
    expect([...standing]).toEqual(['b', 'd']);
  });

  it('gives a stray to a line, and takes the giving back without the bag', () => {
    const rows = [
      row('a', { line: null, label: '999' }),
      row('b', { kind: 'assign', line: 3, subject: 'a' }),
      row('c', { kind: 'take back', line: 3, subject: 'a', undoes: 'b' }),
    ];
    expect(standingBags(rows.slice(0, 2)).bags[0]!.line).toBe(3);
    const { bags, standing } = standingBags(rows);
    expect(bags[0]!.line).toBeNull();
    expect([...standing]).toEqual(['a']);
  });

  it('changes, moves and removes a bag, and goes back step by step', () => {
    const rows = [
      row('a', {}),
      row('b', { kind: 'change', subject: 'a', line: 2, drills: 180, how: 'counted', spread: 0 }),
      row('c', { kind: 'remove', subject: 'a', line: 2, drills: 180 }),
      row('d', { kind: 'take back', subject: 'a', undoes: 'c' }),
      row('e', { kind: 'take back', subject: 'a', undoes: 'b' }),
    ];
    const upTo = (n: number) => standingBags(rows.slice(0, n));
    expect(upTo(2).bags).toMatchObject([{ id: 'a', line: 2, drills: 180, spread: 0 }]);
    expect(upTo(3).bags).toEqual([]);
    expect(upTo(3).removed).toMatchObject([{ bag: { id: 'a', line: 2 }, removal: { id: 'c' } }]);
    expect(upTo(4).bags).toMatchObject([{ id: 'a', line: 2 }]);
    expect(upTo(5).bags).toMatchObject([{ id: 'a', line: 1, drills: 200 }]);
    expect(laterOnSameBag(rows.slice(0, 3), 'a')).toMatchObject({ id: 'b' });
    expect(laterOnSameBag(rows.slice(0, 3), 'b')).toMatchObject({ id: 'c' });
    expect(laterOnSameBag(rows, 'a')).toBeNull();
  });

  it('tells the colours that an entry concerns, before it and since', () => {
    const rows = [
      row('a', {}),
      row('b', { line: 5 }),
      row('c', { kind: 'change', subject: 'a', line: 2 }),
      row('d', { kind: 'take back', subject: 'a', undoes: 'c', line: 2 }),
      row('e', { kind: 'take back', undoes: 'b', line: 5 }),
    ];
    expect(linesOfEntry(rows, 'a')).toEqual([1, 2, 2]);
    expect(linesOfEntry(rows, 'c')).toEqual([1, 2, 2]);
    expect(linesOfEntry(rows, 'e')).toEqual([5, 5]);
    expect(linesOfEntry(rows, 'unheard')).toEqual([]);
  });

  it('lists every bag with when and where, the removed ones too', () => {
    const dated = (id: string, more: Partial<DatedBagRow>): DatedBagRow => ({
      ...row(id, more),
      happenedAt: `2026-05-01T10:0${id.charCodeAt(0) - 97}:00Z`,
      screenId: 'desk',
      ...more,
    });
    const listed = listedBags(
      [
        dated('a', {}),
        dated('b', { screenId: 'phone' }),
        dated('c', { kind: 'change', subject: 'a', drills: 190 }),
        dated('d', { kind: 'remove', subject: 'b', screenId: 'phone' }),
      ],
      'desk',
    );
    expect(listed).toMatchObject([
      { id: 'a', screen: 0, drills: 190, changedAt: '2026-05-01T10:02:00Z', removedBy: null },
      { id: 'b', screen: 2, removedBy: 'd' },
    ]);
  });
});

describe('what one bag changes', () => {
  it('goes into the view, and nothing else does', () => {
    const legend = [line(1), line(2)];
    const bag = (id: string, of: number | null): CountedBag => ({
      id,
      line: of,
      label: '',
      drills: 200,
      how: 'nominal',
      spread: 6,
      shared: [],
      origin: 'kit',
    });
    const before = [bag('a', 1), bag('b', 2), bag('c', null)];
    const after = [...before.slice(0, 2), bag('d', 1)];
    const view = { supply: supplyOf(legend, before, 200), bags: before, kept: 'yes' };
    const answer = { supply: supplyOf(legend, after, 200).slice(0, 1), bags: [before[0]!, after[2]!] };
    const next = withAnswer(view, answer);
    expect(next.kept).toBe('yes');
    expect(next.bags.map(({ id }) => id)).toEqual(['b', 'a', 'd']);
    expect(next.supply.map(({ bags }) => bags)).toEqual([2, 1]);
  });
});

describe('what lacks', () => {
  const [none, few, enough] = supplyOf(
    [
      line(1, { neededDrills: 300, packets: 2 }),
      line(2, { neededDrills: 300 }),
      line(3, { neededDrills: 0 }),
    ],
    [{ id: 'a', line: 2, label: '', drills: 240, how: 'counted', spread: 0, shared: [], origin: 'kit' }],
    200,
  );

  it('is drills or bags still to come', () => {
    expect([none!, few!, enough!].map(lacks)).toEqual([true, true, enough!.expectedBags > 0]);
    expect(mayRunOut(few!)).toBe(true);
    expect(mayRunOut(none!)).toBe(false);
    expect([none!, few!, enough!].map(shareHere)).toEqual([0, 0.8, 1]);
  });

  it('is reckoned without the trash', () => {
    expect(goodDrills([none!, few!], 0.05)).toEqual([0, 0, 228]);
    expect(leftover(240, 200, 0.05)).toBe(28);
    expect(leftover(240, 300, 0.05)).toBe(0);
  });
});
