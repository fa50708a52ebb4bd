// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { legendToText } from '../../src/core/canvas/legendText';
import { SymbolsPage } from '../../src/islands/symbols/SymbolsPage';
import type { SymbolCheckView } from '../../src/server/symbols/contract';
import { line, sampleCanvas } from '../core/samples';
import { standInFetch } from './requests';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const canvas = sampleCanvas();
const alike: SymbolCheckView = {
  pairs: [{ lines: [1, 2], likeness: 0.9, where: null } as unknown as SymbolCheckView['pairs'][number]],
  shades: [],
  dark: [],
  unprintable: [],
  marks: {},
  sentence: 'One pair.',
};

it('parts look-alikes in the plan as it stands: its cases, its rules, and what is kept in place', async () => {
  const plan = {
    order: 'dark',
    leave: 'last used',
    goals: ['closes', 'overflow', 'refills', 'order', 'neighbours'],
    results: [],
    several: true,
    offer: null,
  };
  const slots = [
    { slot: 's1', line: 2, locked: true },
    { slot: 's2', line: 1, locked: false },
  ];
  const view = { plan, cases: [{ storage: { id: 'box' }, slots }] };
  const asked = standInFetch(({ url }) => Response.json(url.endsWith('/kitup') ? view : alike));
  const entry = { canvas } as unknown as Parameters<typeof SymbolsPage>[0]['entry'];
  render(<SymbolsPage entry={entry} legend={legendToText([line(1), line(2)])} />);
  fireEvent.click(await screen.findByRole('button', { name: 'Keep look-alikes apart in the case' }));
  const put = () => asked.find(({ method }) => method === 'PUT');
  await waitFor(() => expect(put()).toBeDefined());
  expect(put()).toMatchObject({ url: `/api/canvases/${canvas.id}/kitup` });
  expect(put()!.body).toEqual({
    order: 'dark',
    leave: 'last used',
    goals: ['closes', 'overflow', 'refills', 'neighbours', 'order'],
    several: true,
    storageIds: ['box'],
    locks: [{ line: 2, storageId: 'box', slot: 's1' }],
  });
});
