import type { Canvas } from '../canvas/canvas';
import { isInside } from '../cells/rect';
import { Refusal } from '../refusal';

/** How a slot holds drills: a square pot, a round pot or bottle, or a resealable bag standing in its place. */
export const SLOT_FORMS = ['box', 'round', 'bag'] as const;
export type SlotForm = (typeof SLOT_FORMS)[number];

/** A slot of a tray. Place and size in units of the tray's grid, from 0. `id` stays when the case is redrawn. */
export interface Slot {
  id: string;
  x: number;
  y: number;
  width: number;
  height: number;
  form: SlotForm;
}

/** One level of a case: a grid with slots drawn on it. Units are outer sizes, so that a tray can be measured with a ruler. */
export interface Tray {
  columns: number;
  rows: number;
  unitWidthMm: number;
  unitDepthMm: number;
  /** Inner height of a slot. */
  heightMm: number;
  /** Wall between two slots. */
  wallMm: number;
  slots: Slot[];
}

/** A case, a set of strips or bottles, or a bin of baggies, as its owner has it. */
export interface Storage {
  id: string;
  name: string;
  /** Share of a slot's room that poured drills fill, 0…1. */
  packingShare: number;
  trays: Tray[];
}

/**
 * Poured tiles fill a little more than half of the room (common practice, no source): loosely poured equal spheres fill
 * about 0.60 (Scott 1960, from memory), flat tiles somewhat less.
 */
export const USUAL_PACKING_SHARE = 0.55;
export const MAX_TRAYS = 6;
export const MAX_TRAY_UNITS = 40;
export const MAX_SLOTS = 400;

const ROUND_WIDER = 1.1;
/** A drill is about half as thick as its pitch (common practice, no source). */
const THICKNESS = 0.52;

/** Body of one drill in mm³: a square tile as wide as the pitch, a round one a little wider. */
export function drillVolumeMm3({ shape, pitchMm }: Pick<Canvas, 'shape' | 'pitchMm'>): number {
  const thickness = THICKNESS * pitchMm;
  return shape === 'square'
    ? pitchMm ** 2 * thickness
    : (Math.PI / 4) * (ROUND_WIDER * pitchMm) ** 2 * thickness;
}

/** Inner room of a slot in mm³. A bag bulges to an oval, so it holds π/4 of its box. */
export function slotVolumeMm3(tray: Tray, slot: Slot): number {
  const width = Math.max(0, slot.width * tray.unitWidthMm - tray.wallMm);
  const depth = Math.max(0, slot.height * tray.unitDepthMm - tray.wallMm);
  switch (slot.form) {
    case 'box':
      return width * depth * tray.heightMm;
    case 'round':
      return (Math.PI / 4) * Math.min(width, depth) ** 2 * tray.heightMm;
    case 'bag':
      return (Math.PI / 4) * width * depth * tray.heightMm;
  }
}

/** Drills that a slot takes when it must close. */
export function slotCapacity(
  storage: Pick<Storage, 'packingShare'>,
  tray: Tray,
  slot: Slot,
  kit: Pick<Canvas, 'shape' | 'pitchMm'>,
): number {
  return Math.floor((slotVolumeMm3(tray, slot) * storage.packingShare) / drillVolumeMm3(kit) + 1e-9);
}

/**
 * The packing share that follows from "this slot takes so many drills".
 * @throws Refusal when the answer would leave the slot nearly empty or more than solid
 */
export function calibratedShare(
  tray: Tray,
  slot: Slot,
  drills: number,
  kit: Pick<Canvas, 'shape' | 'pitchMm'>,
): number {
  const share = (drills * drillVolumeMm3(kit)) / slotVolumeMm3(tray, slot);
  if (!(share >= 0.1 && share <= 1)) {
    const most = Math.floor(slotVolumeMm3(tray, slot) / drillVolumeMm3(kit)).toLocaleString('en');
    throw new Refusal(
      share > 1
        ? `That many drills do not fit: without any air it would hold ${most}. Check the inner size of the slot.`
        : `That would leave nine tenths of the slot empty: without any air it would hold ${most}; check its inner size.`,
    );
  }
  return share;
}

/** A slot with what follows from its place: its number in its case, counted tray by tray in reading order from 1. */
export interface NumberedSlot {
  slot: Slot;
  tray: number;
  number: number;
}

/** Slots of a case in reading order, tray by tray. */
export function slotsInOrder(trays: readonly Tray[]): NumberedSlot[] {
  return trays
    .flatMap((tray, t) =>
      [...tray.slots].sort((a, b) => a.y - b.y || a.x - b.x).map((slot) => ({ slot, tray: t })),
    )
    .map((entry, i) => ({ ...entry, number: i + 1 }));
}

export function slotCount(trays: readonly Tray[]): number {
  return trays.reduce((sum, { slots }) => sum + slots.length, 0);
}

/** Whether two slots of one tray share a wall. */
export function touch(a: Slot, b: Slot): boolean {
  const apart = (from: number, size: number, other: number, otherSize: number) =>
    Math.max(from, other) - Math.min(from + size, other + otherSize);
  const x = apart(a.x, a.width, b.x, b.width);
  const y = apart(a.y, a.height, b.y, b.height);
  return (x === 0 && y < 0) || (y === 0 && x < 0);
}

function overlap(a: Slot, b: Slot): boolean {
  return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
}

/** What is wrong with a drawn tray, as a sentence; null when it is well. */
export function faultInTray(tray: Tray): string | null {
  for (const slot of tray.slots) {
    if (slot.x < 0 || slot.y < 0 || slot.x + slot.width > tray.columns || slot.y + slot.height > tray.rows) {
      return 'A slot reaches over the edge of its tray.';
    }
  }
  const clash = tray.slots.some((a, i) => tray.slots.slice(i + 1).some((b) => overlap(a, b)));
  return clash ? 'Two slots lie over each other.' : null;
}

/** How a case is used: its slots, those that are free, and the kits in it with the slots that each has. */
export function caseUse(
  storage: Pick<Storage, 'id' | 'trays'>,
  taken: readonly { storageId: string; canvasId: string; title: string }[],
): { slots: number; free: number; kits: { id: string; title: string; slots: number }[] } {
  const slots = slotCount(storage.trays);
  const kits = new Map<string, { id: string; title: string; slots: number }>();
  let used = 0;
  for (const { storageId, canvasId, title } of taken) {
    if (storageId !== storage.id) continue;
    used++;
    const kit = kits.get(canvasId) ?? { id: canvasId, title, slots: 0 };
    kit.slots++;
    kits.set(canvasId, kit);
  }
  return { slots, free: slots - used, kits: [...kits.values()] };
}

/** The slot under the upper left unit of a rectangle. */
export function slotUnder(
  tray: Pick<Tray, 'slots'>,
  rect: { x: number; y: number; width: number; height: number },
): Slot | undefined {
  return tray.slots.find((slot) => isInside(slot, rect));
}

/** Pairs of slots that touch: of one tray of one case, by their place in the list. */
export function touchingPairs(
  slots: readonly { storage: Pick<Storage, 'id'>; tray: number; slot: Slot }[],
): [number, number][] {
  const byTray = new Map<string, number[]>();
  slots.forEach(({ storage, tray }, i) => {
    const key = `${storage.id} ${tray}`;
    const known = byTray.get(key);
    if (known) known.push(i);
    else byTray.set(key, [i]);
  });
  const pairs: [number, number][] = [];
  for (const own of byTray.values())
    for (const i of own)
      for (const j of own) if (j > i && touch(slots[i]!.slot, slots[j]!.slot)) pairs.push([i, j]);
  return pairs.sort(([a, c], [b, d]) => a - b || c - d);
}

/**
 * The slot that an arrow key leads to: the nearest one that lies that way, on the same level before others.
 * @param way step across and down, one of them 0
 * @returns null at the edge
 */
export function slotBeside(
  slots: readonly Slot[],
  from: Slot,
  [across, down]: readonly [number, number],
): Slot | null {
  const middle = ({ x, y, width, height }: Slot) => ({ x: x + width / 2, y: y + height / 2 });
  const here = middle(from);
  let best: { slot: Slot; far: number } | null = null;
  for (const slot of slots) {
    const { x, y } = middle(slot);
    const along = (x - here.x) * across + (y - here.y) * down;
    const aside = Math.abs((x - here.x) * down) + Math.abs((y - here.y) * across);
    if (slot.id === from.id || along <= 0) continue;
    const far = along + 3 * aside;
    if (best === null || far < best.far) best = { slot, far };
  }
  return best?.slot ?? null;
}
