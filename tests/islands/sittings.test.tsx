// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { Sittings } from '../../src/islands/progress/Sittings';
import type { SittingRecord } from '../../src/server/progress/contract';
import { type Asked, standInFetch } from './requests';

let asked: Asked[] = [];
beforeEach(() => {
  asked = standInFetch(() => Response.json([]));
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it('a sitting that is corrected keeps what another screen told of it meanwhile', async () => {
  const running = {
    ...{
      id: 's1',
      startedAt: '2026-05-01T18:00:07.000Z',
      endedAt: null,
      note: '',
      removed: false,
      drills: 3,
    },
  } as SittingRecord;
  const other = { ...running, id: 's2', startedAt: '2026-04-30T18:00:00.000Z', note: 'other' };
  const page = (first: SittingRecord[]) => <Sittings canvasId="c1" first={first} onChanged={() => {}} />;
  const { rerender } = render(page([running, other]));
  fireEvent.click(screen.getAllByRole('button', { name: /^Edit the sitting/ })[0]!);
  const form = screen.getByRole('form', { name: 'Correct a sitting' });
  fireEvent.change(screen.getByLabelText('Began'), { target: { value: '2026-05-01T17:30' } });
  // Ended at the bench, with a note.
  rerender(page([{ ...running, endedAt: '2026-05-01T19:00:09.000Z', note: 'tired' }, other]));
  fireEvent.submit(form);
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0]).toMatchObject({
    method: 'PUT',
    url: '/api/canvases/c1/sittings/s1',
    body: {
      startedAt: new Date('2026-05-01T17:30').toISOString(),
      endedAt: '2026-05-01T19:00:09.000Z',
      note: 'tired',
    },
  });
});
