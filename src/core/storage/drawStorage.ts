import type { CellRect } from '../cells/chart';
import { largest } from '../words/numbers';
import { type Slot, type SlotForm, type Storage, type Tray, USUAL_PACKING_SHARE } from './storage';

function meets(slot: Slot, rect: CellRect): boolean {
  return (
    slot.x < rect.x + rect.width &&
    rect.x < slot.x + slot.width &&
    slot.y < rect.y + rect.height &&
    rect.y < slot.y + slot.height
  );
}

/** Clears the slots that a rectangle meets. */
export function eraseSlots(tray: Tray, rect: CellRect): Tray {
  return { ...tray, slots: tray.slots.filter((slot) => !meets(slot, rect)) };
}

/** Draws one slot over a rectangle, in place of the slots that it meets. The first of these gives its id on. */
export function drawSlot(tray: Tray, rect: CellRect, form: SlotForm, freshId: () => string): Tray {
  const id = tray.slots.find((slot) => meets(slot, rect))?.id ?? freshId();
  const cleared = eraseSlots(tray, rect);
  return { ...cleared, slots: [...cleared.slots, { id, ...rect, form }] };
}

/** Fills every free unit of a rectangle with slots of one size, row by row. */
export function fillWithSlots(
  tray: Tray,
  rect: CellRect,
  size: { width: number; height: number },
  form: SlotForm,
  freshId: () => string,
): Tray {
  const slots = [...tray.slots];
  for (let y = rect.y; y + size.height <= rect.y + rect.height; y += size.height) {
    for (let x = rect.x; x + size.width <= rect.x + rect.width; x += size.width) {
      const place = { x, y, ...size };
      if (!slots.some((slot) => meets(slot, place))) slots.push({ id: freshId(), ...place, form });
    }
  }
  return { ...tray, slots };
}

/** Gives a tray another number of columns and rows; slots that no longer fit go. */
export function resizeTray(tray: Tray, columns: number, rows: number): Tray {
  const fits = (slot: Slot) => slot.x + slot.width <= columns && slot.y + slot.height <= rows;
  return { ...tray, columns, rows, slots: tray.slots.filter(fits) };
}

/**
 * Numbers that say nothing about the place, so that a slot keeps its id when others go.
 * @param trays whatever was drawn so far: a slot that is erased gives its id to no other, for what lies in it would seem
 * to lie there
 */
export function slotIds(trays: readonly Tray[]): () => string {
  let next =
    1 +
    largest(
      trays.flatMap(({ slots }) => slots.map(({ id }) => Number(id.slice(1)) || 0)),
      0,
    );
  return () => `s${next++}`;
}

type Sizes = Pick<Tray, 'unitWidthMm' | 'unitDepthMm' | 'heightMm' | 'wallMm'>;

function evenTray(columns: number, rows: number, form: SlotForm, sizes: Sizes, freshId: () => string): Tray {
  const bare: Tray = { columns, rows, ...sizes, slots: [] };
  return fillWithSlots(
    bare,
    { x: 0, y: 0, width: columns, height: rows },
    { width: 1, height: 1 },
    form,
    freshId,
  );
}

const cube = (unit: number, height: number, wall = 1.5): Sizes => ({
  unitWidthMm: unit,
  unitDepthMm: unit,
  heightMm: height,
  wallMm: wall,
});

/** Wide slots at the back, middle ones before them, small ones in front: three sizes in one case. */
function mixedTray(freshId: () => string): Tray {
  const bare: Tray = { columns: 12, rows: 7, ...cube(24, 16), slots: [] };
  const form = 'box' as const;
  const backs = fillWithSlots(
    bare,
    { x: 0, y: 0, width: 12, height: 2 },
    { width: 2, height: 2 },
    form,
    freshId,
  );
  const middles = fillWithSlots(
    backs,
    { x: 0, y: 2, width: 12, height: 2 },
    { width: 1, height: 2 },
    form,
    freshId,
  );
  return fillWithSlots(middles, { x: 0, y: 4, width: 12, height: 3 }, { width: 1, height: 1 }, form, freshId);
}

/** Generic layouts to start from. Sizes are usual ones (common practice, no source); the owner's ruler comes first. */
export const STARTING_LAYOUTS: { key: string; name: string; make: () => Tray[] }[] = [
  { key: 'strip', name: 'Strip of four', make: withIds((id) => [evenTray(4, 1, 'box', cube(30, 24), id)]) },
  { key: 'case28', name: 'Case of 28', make: withIds((id) => [evenTray(7, 4, 'box', cube(28, 24), id)]) },
  {
    key: 'bottles',
    name: '64 bottles',
    make: withIds((id) => [evenTray(8, 8, 'round', cube(27, 42, 3), id)]),
  },
  {
    key: 'trays',
    name: 'Two trays of 42 pots',
    make: withIds((id) => [
      evenTray(7, 6, 'round', cube(30, 22, 2), id),
      evenTray(7, 6, 'round', cube(30, 22, 2), id),
    ]),
  },
  { key: 'mixed', name: 'Mixed case of three sizes', make: withIds((id) => [mixedTray(id)]) },
  {
    key: 'baggies',
    name: 'Baggies in a bin',
    make: withIds((id) => [
      evenTray(3, 20, 'bag', { unitWidthMm: 75, unitDepthMm: 16, heightMm: 60, wallMm: 1 }, id),
    ]),
  },
];

function withIds(make: (freshId: () => string) => Tray[]): () => Tray[] {
  return () => make(slotIds([]));
}

/** A new case of one of the starting layouts. */
export function startStorage(id: string, layout: (typeof STARTING_LAYOUTS)[number], name: string): Storage {
  return { id, name, packingShare: USUAL_PACKING_SHARE, trays: layout.make() };
}
