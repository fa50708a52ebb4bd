// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { legendToText } from '../../src/core/canvas/legendText';
import { PlanPanel } from '../../src/islands/kitup/PlanPanel';
import { PutAway } from '../../src/islands/kitup/PutAway';
import { WalkPage } from '../../src/islands/kitup/WalkPage';
import type { KitupView, SlotView } from '../../src/server/kitup/contract';
import { TOO_SOON_MS } from '../../src/ui/useTooSoon';
import { line, sampleCanvas } from '../core/samples';
import { type Answers, type Asked, held, standInFetch } from './requests';

let asked: Asked[] = [];
let answer: Answers = () => Response.json({});
let now = 0;
beforeEach(() => {
  now = 10_000;
  vi.spyOn(performance, 'now').mockImplementation(() => now);
  asked = standInFetch((request) => answer(request));
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});
/** Long enough to look at what came forward. */
const look = () => {
  now += TOO_SOON_MS + 1;
};

const legend = [line(1), line(2), line(3)];
const slot = (of: number): SlotView => ({
  slot: `s${of}`,
  tray: 0,
  place: `pot ${of}`,
  capacity: 200,
  line: of,
  drills: 100,
  locked: false,
  takenBy: null,
});
const viewOf = (more: Partial<KitupView> = {}): KitupView => ({
  noCases: false,
  trashShare: 0.03,
  plan: null,
  storages: [],
  cases: [{ storage: { id: 'box', name: 'Box', packingShare: 0.5, trays: [] }, slots: [1, 2, 3].map(slot) }],
  places: { 1: ['pot 1'], 2: ['pot 2'], 3: ['pot 3'] },
  amounts: { 1: 100, 2: 100, 3: 100 },
  bags: [],
  refills: [],
  filled: [],
  putAway: {},
  leftovers: { 1: 11, 2: 22, 3: 33 },
  stash: {},
  sorting: { bags: 3, piles: [], largest: 3, digits: null },
  history: { undo: null, redo: null } as KitupView['history'],
  ...more,
});

it('a number of leftovers stays with the colour that it was typed for', () => {
  const onNote = vi.fn(async () => true);
  const shown = (putAway: Record<number, number>) => (
    <PutAway
      view={viewOf({ filled: [1, 2, 3], putAway })}
      legend={legend}
      shape="square"
      busy={false}
      onNote={onNote}
      onLight={() => {}}
    />
  );
  const { rerender } = render(shown({}));
  const field = () => screen.getByLabelText<HTMLInputElement>(/^Drills left over/);
  const press = () => fireEvent.click(screen.getByRole('button', { name: 'Into the stash, next pot' }));
  expect(field().value).toBe('11');
  fireEvent.change(field(), { target: { value: '140' } });
  look();
  // Another screen puts that colour away, just before this one would.
  rerender(shown({ 1: 9 }));
  expect(field().value).toBe('22');
  press();
  expect(onNote).not.toHaveBeenCalled();
  look();
  press();
  expect(onNote).toHaveBeenCalledExactlyOnceWith({ line: 2, kind: 'put away', drills: 22 });
});

it('what is typed while an answer is late stays, and a pot is filled once', async () => {
  const late = held();
  answer = ({ method }) => (method === 'GET' ? Response.json(viewOf()) : late.promise);
  const canvas = sampleCanvas({ bagsCarry: 'codes' });
  const entry = { canvas } as Parameters<typeof WalkPage>[0]['entry'];
  render(<WalkPage entry={entry} legend={legendToText(legend)} first={viewOf()} />);
  const field = screen.getByLabelText<HTMLInputElement>('Code on this bag');
  const type = (value: string) => fireEvent.change(field, { target: { value } });
  const enter = () => fireEvent.submit(field.form!);
  type(legend[0]!.code);
  enter();
  look();
  enter();
  await waitFor(() => expect(asked.filter(({ method }) => method === 'POST')).toHaveLength(1));
  // The next bag is in hand.
  type(legend[1]!.code.slice(0, 2));
  await act(async () => late.release(Response.json(viewOf({ filled: [1] }))));
  await screen.findByText('still to be put in their places.');
  expect(field.value).toBe(legend[1]!.code.slice(0, 2));
  // The same bag once more: its pot is known as filled.
  type(legend[0]!.code);
  enter();
  look();
  enter();
  await screen.findByText('still to be put in their places.');
  expect(asked.filter(({ method }) => method === 'POST')).toHaveLength(1);
  expect(asked.find(({ method }) => method === 'POST')!.body).toMatchObject({ line: 1, kind: 'fill' });
});

it('the plan that is asked for follows that of another screen in what is not touched', async () => {
  const onPlan = vi.fn(async () => true);
  const planned = (more: Partial<NonNullable<KitupView['plan']>>): KitupView =>
    viewOf({
      storages: [{ id: 'box', name: 'Box', slots: 3, free: 3 }],
      plan: {
        ...{ order: 'code', leave: 'fewest drills', results: [], several: false, offer: null },
        goals: ['closes', 'overflow', 'refills', 'order', 'neighbours'],
        ...more,
      },
    });
  const shown = (view: KitupView) => <PlanPanel view={view} busy={false} onPlan={onPlan} />;
  const { rerender } = render(shown(planned({})));
  const order = () => screen.getByLabelText<HTMLSelectElement>('Kept in the order of').value;
  const several = screen.getByLabelText<HTMLInputElement>('Use spare pots for what overflows');
  fireEvent.click(several);
  rerender(shown(planned({ order: 'dark' })));
  expect([order(), several.checked]).toEqual(['dark', true]);
  const asked = { storageIds: ['box'], order: 'dark', leave: 'fewest drills', several: true };
  await act(async () => fireEvent.submit(several.form!));
  expect(onPlan).toHaveBeenLastCalledWith(expect.objectContaining(asked));
  // Once it is planned so, the form follows in all of it.
  rerender(shown(planned({ order: 'key', several: false })));
  expect([order(), several.checked]).toEqual(['key', false]);
  // A case that was deleted meanwhile is asked for no longer.
  rerender(shown({ ...planned({}), storages: [] }));
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Plan again' }).disabled).toBe(true);
});
