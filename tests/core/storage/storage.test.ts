import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rectBetween } from '../../../src/core/cells/rect';
import {
  drawSlot,
  eraseSlots,
  fillWithSlots,
  resizeTray,
  STARTING_LAYOUTS,
  slotIds,
  startStorage,
} from '../../../src/core/storage/drawStorage';
import { renumbered, renumberedInWords } from '../../../src/core/storage/redraw';
import {
  calibratedShare,
  caseUse,
  drillVolumeMm3,
  faultInTray,
  slotBeside,
  slotCapacity,
  slotsInOrder,
  slotUnder,
  slotVolumeMm3,
  type Tray,
  touch,
  touchingPairs,
} from '../../../src/core/storage/storage';

const KIT = { shape: 'square', pitchMm: 2.5 } as const;
const bare = (columns: number, rows: number): Tray => ({
  columns,
  rows,
  unitWidthMm: 26,
  unitDepthMm: 26,
  heightMm: 20,
  wallMm: 1,
  slots: [],
});
const slot = (x: number, y: number, width = 1, height = 1, form: 'box' | 'round' | 'bag' = 'box') => ({
  id: `s${x}-${y}`,
  x,
  y,
  width,
  height,
  form,
});

describe('the room of a slot', () => {
  it('follows from its inner size', () => {
    // 25 × 25 × 20 mm = 12,500 mm³; a square drill is 2.5 × 2.5 × 1.3 mm = 8.125 mm³.
    const tray = bare(4, 1);
    expect(slotVolumeMm3(tray, slot(0, 0))).toBe(12_500);
    expect(drillVolumeMm3(KIT)).toBeCloseTo(8.125, 10);
    expect(slotCapacity({ packingShare: 0.55 }, tray, slot(0, 0), KIT)).toBe(
      Math.floor((12_500 * 0.55) / 8.125),
    );
    expect(slotVolumeMm3(tray, slot(0, 0, 1, 1, 'round'))).toBeCloseTo((Math.PI / 4) * 12_500, 8);
    expect(slotVolumeMm3(tray, slot(0, 0, 2, 1))).toBe(51 * 25 * 20);
  });

  it('grows with the slot and is never negative', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.double({ min: 0, max: 60, noNaN: true }),
        (units, wallMm) => {
          const tray = { ...bare(10, 10), wallMm };
          const small = slotVolumeMm3(tray, slot(0, 0, units, units));
          expect(small).toBeGreaterThanOrEqual(0);
          expect(slotVolumeMm3(tray, slot(0, 0, units + 1, units))).toBeGreaterThanOrEqual(small);
        },
      ),
    );
  });

  it('is calibrated by what goes in: 8 packets of 200 make that slot hold 1,600', () => {
    const tray = { ...bare(4, 1), heightMm: 42 };
    const share = calibratedShare(tray, slot(0, 0), 8 * 200, KIT);
    expect(slotCapacity({ packingShare: share }, tray, slot(0, 0), KIT)).toBe(1600);
    expect(() => calibratedShare(tray, slot(0, 0), 9000, KIT)).toThrow('without any air it would hold 3,230');
    expect(() => calibratedShare(tray, slot(0, 0), 5, KIT)).toThrow('nine tenths');
  });

  it('takes fewer round drills of a coarser pitch', () => {
    const tray = bare(1, 1);
    const at = (shape: 'square' | 'round', pitchMm: number) =>
      slotCapacity({ packingShare: 0.55 }, tray, slot(0, 0), { shape, pitchMm });
    expect(at('square', 5)).toBeLessThan(at('square', 2.5) / 7);
    expect(at('round', 2.8)).toBeLessThan(at('round', 2.5));
  });
});

describe('drawing a case', () => {
  const freshId = () => slotIds([])();

  it('takes the rectangle between two corners in any direction', () => {
    expect(rectBetween({ x: 4, y: 1 }, { x: 2, y: 3 })).toEqual({ x: 2, y: 1, width: 3, height: 3 });
  });

  it('joins small slots into a large one that keeps the first id', () => {
    const ids = slotIds([]);
    const small = fillWithSlots(
      bare(4, 2),
      { x: 0, y: 0, width: 4, height: 2 },
      { width: 1, height: 1 },
      'box',
      ids,
    );
    expect(small.slots).toHaveLength(8);
    const joined = drawSlot(small, { x: 0, y: 0, width: 2, height: 2 }, 'box', ids);
    expect(joined.slots).toHaveLength(5);
    expect(joined.slots.at(-1)).toMatchObject({ id: 's1', width: 2, height: 2 });
    expect(faultInTray(joined)).toBeNull();
    expect(eraseSlots(joined, { x: 1, y: 1, width: 1, height: 1 }).slots).toHaveLength(4);
  });

  it('drops what no longer fits when a tray shrinks, and tells faults of drawings that come from outside', () => {
    const tray = { ...bare(3, 1), slots: [slot(0, 0), slot(2, 0)] };
    expect(resizeTray(tray, 2, 1).slots).toHaveLength(1);
    expect(faultInTray({ ...bare(2, 1), slots: [slot(1, 0, 2)] })).toContain('over the edge');
    expect(faultInTray({ ...bare(3, 1), slots: [slot(0, 0, 2), slot(1, 0)] })).toContain('over each other');
  });

  it('numbers slots in reading order, tray by tray', () => {
    const first = { ...bare(3, 2), slots: [slot(1, 1), slot(2, 0), slot(0, 0)] };
    const second = { ...bare(1, 1), slots: [slot(0, 0)] };
    expect(
      slotsInOrder([first, second]).map(({ slot: { x, y }, tray, number }) => [x, y, tray, number]),
    ).toEqual([
      [0, 0, 0, 1],
      [2, 0, 0, 2],
      [1, 1, 0, 3],
      [0, 0, 1, 4],
    ]);
  });

  it('knows neighbours by their shared wall, not by a corner', () => {
    expect(touch(slot(0, 0), slot(1, 0))).toBe(true);
    expect(touch(slot(0, 0, 1, 2), slot(1, 1))).toBe(true);
    expect(touch(slot(0, 0), slot(1, 1))).toBe(false);
    expect(touch(slot(0, 0), slot(2, 0))).toBe(false);
  });

  it('never gives an id twice', () => {
    const ids = slotIds([{ ...bare(2, 1), slots: [{ ...slot(0, 0), id: 's7' }] }]);
    expect([ids(), ids()]).toEqual(['s8', 's9']);
    expect(freshId()).toBe('s1');
    // Nor that of the last one, once it is erased.
    const was = { ...bare(2, 1), slots: [{ ...slot(0, 0), id: 's7' }] };
    expect(slotIds([was, { ...was, slots: [] }])()).toBe('s8');
  });
});

describe('a case that is drawn anew', () => {
  const tray = (...slots: [id: string, x: number][]) => ({
    ...bare(9, 1),
    slots: slots.map(([id, x]) => ({ ...slot(x, 0), id })),
  });
  const pot = (slot: string, code: string | null = slot.toUpperCase()) => ({ slot, code, title: 'Hills' });
  const before = [tray(['s1', 1], ['s2', 2], ['s3', 3]), tray(['s4', 0])];

  it('tells which pots in use get another number', () => {
    const after = [tray(['s9', 0], ['s1', 1], ['s3', 3]), tray(['s4', 0])];
    const inUse = [pot('s4'), pot('s3'), pot('s1', null), pot('s2')];
    const changes = renumbered(before, after, inUse);
    // s3 and s4 stay where they were counted; s2 is gone, which is told elsewhere.
    expect(changes).toEqual([{ pot: pot('s1', null), from: 1, to: 2 }]);
    expect(renumberedInWords(changes)).toBe(
      'A pot in use gets another number: a colour of Hills from 1 to 2. Print its label again.',
    );
    expect(renumberedInWords(renumbered(before, before, inUse))).toBeNull();
  });

  it('names a few, by their number, and counts the others', () => {
    const all = [tray(['s9', 0], ['s1', 1], ['s2', 2], ['s3', 3]), tray(['s4', 0])];
    const inUse = ['s4', 's3', 's2', 's1'].map((id) => pot(id));
    expect(renumberedInWords(renumbered(before, all, inUse))).toBe(
      '4 pots in use get other numbers: S1 of Hills from 1 to 2, S2 of Hills from 2 to 3, S3 of Hills from 3 to 4 and 1 more. Print their labels again.',
    );
    expect(renumberedInWords(renumbered(before, all, inUse.slice(2)))).toBe(
      '2 pots in use get other numbers: S1 of Hills from 1 to 2, S2 of Hills from 2 to 3. Print their labels again.',
    );
  });
});

describe('the starting layouts', () => {
  // The counts are the layouts' own names; common practice, no source.
  it.each([
    ['strip', 4],
    ['case28', 28],
    ['bottles', 64],
    ['trays', 84],
    ['baggies', 60],
  ])('%s has %i slots', (key, count) => {
    const layout = STARTING_LAYOUTS.find((each) => each.key === key)!;
    expect(slotsInOrder(layout.make())).toHaveLength(count);
  });

  it('are drawn without fault, each slot with an id of its own and room for a packet', () => {
    for (const layout of STARTING_LAYOUTS) {
      const storage = startStorage('x', layout, layout.name);
      const all = slotsInOrder(storage.trays);
      expect(storage.trays.map(faultInTray)).toEqual(storage.trays.map(() => null));
      expect(new Set(all.map(({ slot: { id } }) => id)).size).toBe(all.length);
      for (const { slot: each, tray } of all)
        expect(slotCapacity(storage, storage.trays[tray]!, each, KIT)).toBeGreaterThan(200);
    }
  });

  it('has three sizes in the mixed case', () => {
    const mixed = STARTING_LAYOUTS.find((each) => each.key === 'mixed')!;
    const sizes = slotsInOrder(mixed.make()).map(({ slot: { width, height } }) => `${width}×${height}`);
    expect(new Set(sizes)).toEqual(new Set(['2×2', '1×2', '1×1']));
  });
});

describe('the use of a case', () => {
  const trays: Tray[] = [
    { ...bare(3, 2), slots: [slot(0, 0), slot(1, 0), slot(2, 0, 1, 2)] },
    { ...bare(3, 2), slots: [slot(0, 0)] },
  ];

  it('counts its own slots, kit by kit', () => {
    const taken = [
      { storageId: 'a', canvasId: '1', title: 'One' },
      { storageId: 'b', canvasId: '1', title: 'One' },
      { storageId: 'a', canvasId: '2', title: 'Two' },
      { storageId: 'a', canvasId: '1', title: 'One' },
    ];
    expect(caseUse({ id: 'a', trays }, taken)).toEqual({
      slots: 4,
      free: 1,
      kits: [
        { id: '1', title: 'One', slots: 2 },
        { id: '2', title: 'Two', slots: 1 },
      ],
    });
  });

  it('finds the slot under the corner of a rectangle', () => {
    expect(slotUnder(trays[0]!, { x: 2, y: 1, width: 1, height: 1 })?.id).toBe('s2-0');
    expect(slotUnder(trays[0]!, { x: 1, y: 0, width: 2, height: 1 })?.id).toBe('s1-0');
    expect(slotUnder(trays[0]!, { x: 0, y: 1, width: 1, height: 1 })).toBeUndefined();
  });

  it('knows slots that touch within one tray of one case only', () => {
    const at = (id: string, tray: number, which: ReturnType<typeof slot>) => ({
      storage: { id },
      tray,
      slot: which,
    });
    const pairs = touchingPairs([
      at('a', 0, slot(0, 0)),
      at('a', 0, slot(1, 0)),
      at('a', 1, slot(1, 0)),
      at('b', 0, slot(1, 0)),
      at('a', 0, slot(2, 0)),
    ]);
    expect(pairs).toEqual([
      [0, 1],
      [1, 4],
    ]);
  });
});

describe('the form of a slot', () => {
  // Area of a circle in its square: π ÷ 4 (Euclid, Elements XII.2, as a number).
  it('takes a round pot’s share of its box, and a bag as it says', () => {
    const tray = { ...bare(2, 1), slots: [] };
    const box = slotVolumeMm3(tray, slot(0, 0));
    expect(slotVolumeMm3(tray, slot(0, 0, 1, 1, 'round')) / box).toBeCloseTo(Math.PI / 4, 2);
    expect(slotVolumeMm3(tray, slot(0, 0, 1, 1, 'bag'))).not.toBe(box);
  });
});

describe('the slot beside another', () => {
  const slot = (id: string, x: number, y: number, width = 1, height = 1) => ({
    id,
    x,
    y,
    width,
    height,
    form: 'box' as const,
  });
  // Two rows of three, the last of the lower ones twice as wide.
  const slots = [slot('a', 0, 0), slot('b', 1, 0), slot('c', 2, 0), slot('d', 0, 1), slot('e', 1, 1, 2)];
  const beside = (from: string, way: readonly [number, number]) =>
    slotBeside(slots, slots.find(({ id }) => id === from)!, way)?.id ?? null;

  it('lies that way, on the same level before others', () => {
    expect(beside('a', [1, 0])).toBe('b');
    expect(beside('c', [-1, 0])).toBe('b');
    expect(beside('a', [0, 1])).toBe('d');
    expect(beside('c', [0, 1])).toBe('e');
    expect(beside('d', [1, 0])).toBe('e');
  });

  it('is none at the edge', () => {
    expect(beside('a', [-1, 0])).toBeNull();
    expect(beside('e', [0, 1])).toBeNull();
  });
});
