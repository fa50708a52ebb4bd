// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { PanelsPage } from '../../src/islands/chart/PanelsPage';
import type { PanelsView } from '../../src/server/chart/contract';
import { sampleCanvas } from '../core/samples';
import { standInFetch } from './requests';
import { SETTLE_MS, say, standInSource } from './standInSource';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it('how a canvas is cut follows another screen in what is not typed here, and is kept as it stands', async () => {
  const canvas = sampleCanvas({ width: 100, height: 80 });
  const plan = {
    columnCuts: [50],
    rowCuts: [],
    overlap: 0,
    marginMm: 25,
    reachWidthCm: null,
    reachHeightCm: null,
  };
  let view: PanelsView = { plan, panels: [], twice: 0 };
  standInSource();
  const asked = standInFetch(({ method, body }) => {
    if (method === 'PUT') view = { ...view, plan: body as unknown as PanelsView['plan'] };
    return Response.json(view);
  });
  const entry = { canvas, hasChart: false } as Parameters<typeof PanelsPage>[0]['entry'];
  render(<PanelsPage entry={entry} first={view} />);
  const settle = () => act(() => new Promise<void>((resolve) => setTimeout(resolve, SETTLE_MS)));
  const value = (words: string) => screen.getByLabelText<HTMLInputElement>(words).value;
  await settle();
  fireEvent.change(screen.getByLabelText('Overlap, squares'), { target: { value: '3' } });
  view = { ...view, plan: { ...plan, columnCuts: [40, 70], overlap: 1 } };
  await say(canvas.id, 'changed', { parts: ['sections'], by: { screen: 'elsewhere', device: 'Tablet' } });
  await settle();
  await waitFor(() => expect(value('Cut after columns')).toBe('40, 70'));
  expect(value('Overlap, squares')).toBe('3');
  fireEvent.click(screen.getByRole('button', { name: 'Cut it like this' }));
  await waitFor(() => expect(asked.some(({ method }) => method === 'PUT')).toBe(true));
  expect(asked.find(({ method }) => method === 'PUT')!.body).toEqual({
    ...plan,
    columnCuts: [40, 70],
    overlap: 3,
  });
  // Kept as typed; what comes later is shown again in every field.
  await settle();
  view = { ...view, plan: { ...plan, overlap: 2 } };
  await say(canvas.id, 'changed', { parts: ['sections'], by: { screen: 'elsewhere', device: 'Tablet' } });
  await settle();
  await waitFor(() => expect(value('Overlap, squares')).toBe('2'));
});
