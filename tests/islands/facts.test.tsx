// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { FactsPage } from '../../src/islands/corrections/FactsPage';
import { sampleCanvas } from '../core/samples';
import { standInFetch } from './requests';
import { standInSource } from './standInSource';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it('what a correction costs is said of what is typed now, however late the answer about what was typed before', async () => {
  standInSource();
  const held = new Map<number, (response: Response) => void>();
  standInFetch(({ url, body }) => {
    if (!url.endsWith('/change-report'))
      return Response.json({ history: { undo: null, redo: null }, entries: [] });
    return new Promise<Response>((resolve) => held.set((body as { width: number }).width, resolve));
  });
  const canvas = sampleCanvas();
  render(<FactsPage entry={{ canvas } as Parameters<typeof FactsPage>[0]['entry']} />);
  const width = screen.getByLabelText('Width, squares');
  const save = screen.getByRole<HTMLButtonElement>('button', { name: 'Save' });
  const type = async (value: number) => {
    fireEvent.change(width, { target: { value: String(value) } });
    await waitFor(() => expect([...held.keys()]).toContain(value));
  };
  const answer = (value: number) =>
    act(async () =>
      held.get(value)!(Response.json({ costs: [`The canvas becomes ${value} wide.`], fault: null })),
    );
  await type(12);
  await type(14);
  await answer(12);
  expect(screen.queryByText(/becomes/)).toBeNull();
  expect(save.disabled).toBe(true);
  await answer(14);
  await screen.findByText('The canvas becomes 14 wide.');
  expect(save.disabled).toBe(false);
  // Typed on, nothing is known of it yet; back to what the canvas is, there is nothing to save.
  await type(16);
  expect(screen.queryByText(/becomes/)).toBeNull();
  expect(save.disabled).toBe(true);
  fireEvent.change(width, { target: { value: '10' } });
  await answer(16);
  expect(screen.getByText(/Change a field to see here/)).toBeTruthy();
  expect(save.disabled).toBe(true);
});
