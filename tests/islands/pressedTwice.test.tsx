// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { InspectionPage } from '../../src/islands/inspection/InspectionPage';
import { StashPage } from '../../src/islands/stash/StashPage';
import { StartLayouts } from '../../src/islands/storage/StartLayouts';
import type { StashView } from '../../src/server/stash/contract';
import { sampleCanvas } from '../core/samples';
import { type Answers, type Asked, held, standInFetch } from './requests';

let asked: Asked[] = [];
let answer: Answers = () => Response.json([]);
beforeEach(() => {
  asked = standInFetch((request) => answer(request));
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});
const sent = () => asked.filter(({ method }) => method !== 'GET');

it('a case to start from is added once', async () => {
  const late = held();
  answer = () => late.promise;
  const onAdded = vi.fn();
  render(<StartLayouts onAdded={onAdded} />);
  const press = () => fireEvent.click(screen.getByRole('button', { name: /^Strip of four/ }));
  press();
  press();
  late.release(Response.json([]));
  await waitFor(() => expect(onAdded).toHaveBeenCalledOnce());
  expect(sent()).toHaveLength(1);
});

it('a note on the canvas is written once, and what is typed while its answer is late stays', async () => {
  answer = () => Response.json([]);
  const entry = { canvas: sampleCanvas() } as Parameters<typeof InspectionPage>[0]['entry'];
  render(<InspectionPage entry={entry} first={[]} />);
  const field = screen.getByLabelText<HTMLTextAreaElement>('Note');
  const press = async () => {
    await act(async () => fireEvent.submit(field.form!));
  };
  fireEvent.change(field, { target: { value: 'A crease' } });
  await press();
  await waitFor(() => expect(field.value).toBe(''));
  await press();
  expect(sent().map(({ body }) => body!.note)).toEqual(['A crease']);
  const late = held();
  answer = ({ method }) => (method === 'GET' ? Response.json([]) : late.promise);
  fireEvent.change(field, { target: { value: 'A bubble' } });
  await press();
  fireEvent.change(field, { target: { value: 'Odour, too' } });
  await act(async () => late.release(Response.json([])));
  await waitFor(() => expect(sent()).toHaveLength(2));
  expect(field.value).toBe('Odour, too');
});

it('a leftover that is corrected is not closed by the late answer about the one before', async () => {
  const item = (code: string) => ({
    ...{ id: code, code, name: 'Sky', hex: null, finish: 'plain', shape: 'square', drills: 90 },
  });
  const view = {
    items: [item('310'), item('311')],
    deleted: [],
    history: { undo: null, redo: null },
  } as unknown as StashView;
  const late = held();
  answer = ({ method }) => (method === 'GET' ? Response.json(view) : late.promise);
  render(<StashPage first={view} isWhole days={30} />);
  const edit = (code: string) => fireEvent.click(screen.getByRole('button', { name: `Edit ${code} Sky` }));
  const code = () => screen.getByLabelText<HTMLInputElement>('Colour code').value;
  edit('310');
  fireEvent.change(screen.getByLabelText('Name, if you like'), { target: { value: 'Sea' } });
  fireEvent.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(sent()).toHaveLength(1));
  edit('311');
  const sea = { ...view, items: [{ ...view.items[0]!, name: 'Sea' }], gone: [] };
  await act(async () => late.release(Response.json(sea)));
  await screen.findByRole('button', { name: 'Edit 310 Sea' });
  expect([code(), screen.queryByRole('button', { name: 'Save' }) !== null]).toEqual(['311', true]);
});

it('who was told of another amount and saves again is right, though this page does not show it yet', async () => {
  const item = {
    id: 'a',
    code: '412',
    name: '',
    hex: null,
    finish: 'plain',
    shape: 'square',
    drills: 4,
  } as const;
  const view = {
    ...{ items: [item], deleted: [], history: { undo: null, redo: null } },
  } as unknown as StashView;
  answer = ({ method, body }) => {
    if (method === 'GET') return Response.json(view);
    const { before, drills } = body as { before: { drills: number }; drills: number };
    return before.drills === 3
      ? Response.json({ ...view, items: [{ ...item, drills }], gone: [] })
      : Response.json({ detail: 'There are 3 of 412 by now.', drills: 3 }, { status: 409 });
  };
  render(<StashPage first={view} isWhole days={30} />);
  fireEvent.click(screen.getByRole('button', { name: /^Edit/ }));
  const drills = screen.getByLabelText<HTMLInputElement>('Drills left over');
  fireEvent.change(drills, { target: { value: '8' } });
  const save = () => act(async () => fireEvent.submit(drills.form!));
  await save();
  await screen.findByText('There are 3 of 412 by now.');
  await save();
  await waitFor(() => expect(sent()).toHaveLength(2));
  expect(sent()[1]!.body).toMatchObject({ drills: 8, before: { drills: 3 } });
  await waitFor(() => expect(screen.queryByText('There are 3 of 412 by now.')).toBeNull());
});
