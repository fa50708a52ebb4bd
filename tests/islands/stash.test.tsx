// @vitest-environment happy-dom
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import type { StashItem } from '../../src/core/stash/cover';
import { afterChange } from '../../src/islands/stash/afterChange';
import { StashPage } from '../../src/islands/stash/StashPage';

const history = { undo: null, redo: null } as never;
const item = (code: string, drills = 10): StashItem => ({
  ...{ id: code, code, name: '', hex: null, finish: 'plain', shape: 'square', drills },
});

it('a change of the stash adds, changes and takes away, and leaves the rest where it was', () => {
  const before = { items: [item('1'), item('2'), item('3')], deleted: [], history };
  const deleted = [{ id: '3', kind: 'stash', title: '3', deletedAt: '' }] as never;
  const after = afterChange(before, { items: [item('2', 7), item('4')], gone: ['3'], deleted, history });
  expect(after).toEqual({ items: [item('1'), item('2', 7), item('4')], deleted, history });
  expect(before.items).toHaveLength(3);
});

it('where the items come after the page nothing is said of them before, and what is added meanwhile is among them', async () => {
  const came: ((items: StashItem[]) => void)[] = [];
  vi.stubGlobal('fetch', (_: string, init: RequestInit = {}) => {
    const view = (items: StashItem[]) => Response.json({ items, deleted: [], history });
    if (init.method === 'POST')
      return Promise.resolve(Response.json({ items: [item('9')], gone: [], deleted: [], history }));
    return new Promise<Response>((resolve) => came.push((items) => resolve(view(items))));
  });
  render(<StashPage first={{ items: [], deleted: [], history }} isWhole={false} days={30} />);
  expect(screen.queryByText(/The stash is empty/)).toBeNull();
  fireEvent.change(screen.getByLabelText('Colour code'), { target: { value: '9' } });
  fireEvent.change(screen.getByLabelText('Drills left over'), { target: { value: '10' } });
  await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Add to the stash' })));
  // What was asked before may know nothing of it, so all of it is asked for once more.
  await waitFor(() => expect(came).toHaveLength(2));
  expect(screen.queryByRole('table')).toBeNull();
  await act(async () => came[0]!([item('1')]));
  expect(screen.queryByRole('table')).toBeNull();
  await act(async () => came[1]!([item('1'), item('9')]));
  expect(screen.getAllByRole('row')).toHaveLength(3);
});
