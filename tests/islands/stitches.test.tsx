// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { StitchesPage } from '../../src/islands/stitches/StitchesPage';
import { type Answers, type Asked, standInFetch } from './requests';

const READING = '/api/stitch-readings';
/** What a reading of two threads comes to; the second has the drill that is asked for. */
function viewOf(request: Asked) {
  const chosen = (request.body?.chosen ?? []) as { thread: string; drill: string }[];
  const drill = chosen.at(-1)?.drill ?? 'D1';
  const thread = { symbol: 'x', code: 'T1', name: 'Peat', hex: '#101010' };
  const offers = ['D1', 'D2', 'D3'].map((code) => ({ code, name: code, hex: '#111111', inWords: 'near' }));
  return {
    ...{ width: 12, height: 10, merges: [], unmatched: [], drills: 120, colours: 1 },
    threads: [{ thread, stitches: 120, how: 'chosen', drill, inWords: '', offers }],
    words: { kind: request.body?.words ?? 'symbols', others: ['codes'] },
    notices: ['The words were read as they are.'],
  };
}

/** Answers that are held until they are let go, in any order. */
let held: { request: Asked; answer: () => void }[];
let asked: Asked[];
let down: boolean;
beforeEach(() => {
  held = [];
  down = false;
  const answers: Answers = (request) => {
    if (down) return Promise.reject(new Error('down'));
    if (request.url !== READING) return Response.json({}, { status: 201 });
    return new Promise((resolve) => {
      held.push({ request, answer: () => resolve(Response.json(viewOf(request))) });
    });
  };
  asked = standInFetch(answers);
});
afterEach(() => {
  vi.unstubAllGlobals();
  cleanup();
});

const offer = (label: RegExp, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { files: [new File([text], 'file.csv')] } });
const drill = () => screen.getByLabelText<HTMLSelectElement>('Drill for thread T1');
const pick = (code: string) => fireEvent.change(drill(), { target: { value: code } });
const save = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Put it on the shelf' });

async function opened() {
  render(<StitchesPage />);
  offer(/^Grid/, 'x,x');
  await screen.findByText('file.csv');
  offer(/^Thread list/, 'symbol,code\nx,T1');
  await waitFor(() => expect(held).toHaveLength(1));
  held[0]!.answer();
  await waitFor(() => expect(save().disabled).toBe(false));
}

it('what is shown is what is saved, also when answers come in another order', async () => {
  await opened();
  pick('D2');
  pick('D3');
  await waitFor(() => expect(held).toHaveLength(3));
  // The later choice is answered first; the earlier one says nothing any more.
  held[2]!.answer();
  await waitFor(() => expect(drill().value).toBe('D3'));
  held[1]!.answer();
  await waitFor(() => expect(save().disabled).toBe(false));
  expect(drill().value).toBe('D3');
  fireEvent.click(save());
  await waitFor(() => expect(asked.at(-1)!.url).toBe('/api/stitch-canvases'));
  expect(asked.at(-1)!.body).toMatchObject({ chosen: [{ thread: 'T1', drill: 'D3' }], words: null });
});

it('nothing is saved while what was chosen last is not shown', async () => {
  await opened();
  pick('D2');
  expect(save().disabled).toBe(true);
  down = true;
  pick('D3');
  await screen.findByText(/Oculent does not answer/);
  held[1]!.answer();
  await Promise.resolve();
  expect([drill().value, save().disabled]).toEqual(['D1', true]);
  down = false;
  pick('D2');
  await waitFor(() => expect(held).toHaveLength(3));
  held[2]!.answer();
  await waitFor(() => expect([drill().value, save().disabled]).toEqual(['D2', false]));
});

it('the words of the grid are symbols or codes, as the user says, until there is another grid', async () => {
  await opened();
  fireEvent.click(screen.getByRole('button', { name: 'codes' }));
  await waitFor(() => expect(held).toHaveLength(2));
  expect(held[1]!.request.body!.words).toBe('codes');
  held[1]!.answer();
  await waitFor(() =>
    expect(screen.getByRole('button', { name: 'codes' }).getAttribute('aria-pressed')).toBe('true'),
  );
  offer(/^Grid/, 'x,y');
  await waitFor(() => expect(held).toHaveLength(3));
  expect(held[2]!.request.body).toMatchObject({ words: null, grid: 'x,y' });
  expect(screen.queryByRole('button', { name: 'Put it on the shelf' })).toBeNull();
});
