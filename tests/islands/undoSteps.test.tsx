// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, renderHook, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import type { UndoView } from '../../src/core/ledger/history';
import { UndoButtons } from '../../src/islands/writing/UndoButtons';
import { useUndoSteps } from '../../src/islands/writing/useUndoSteps';

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

type History = UndoView<{ id: string }>;
const history = (undo: string | null, redo: string | null): History => ({
  undo: undo === null ? null : { id: undo, own: true },
  redo: redo === null ? null : { id: redo },
});

function steps(first: History) {
  const done: string[] = [];
  const onStep = (step: string, id: string) => done.push(`${step} ${id}`);
  const hook = renderHook(
    ({ now, busy }: { now: History; busy: boolean }) => useUndoSteps(now, busy, onStep),
    { initialProps: { now: first, busy: false } },
  );
  return {
    done,
    press: (step: 'undo' | 'redo', waits = true) => act(() => hook.result.current(step, waits)),
    ...hook,
  };
}

it('keys that come while an undo is on its way are done in order, each on what the one before led to', () => {
  const { done, press, rerender } = steps(history('b', null));
  press('undo');
  press('undo');
  press('redo');
  expect(done).toEqual(['undo b']);
  rerender({ now: history('b', null), busy: true });
  expect(done).toEqual(['undo b']);
  rerender({ now: history('a', 'b'), busy: true });
  expect(done).toEqual(['undo b']);
  rerender({ now: history('a', 'b'), busy: false });
  expect(done).toEqual(['undo b', 'undo a']);
  rerender({ now: history(null, 'a'), busy: false });
  expect(done).toEqual(['undo b', 'undo a', 'redo a']);
});

it('an undo that is refused leaves the next one free', () => {
  const { done, press, rerender } = steps(history('b', null));
  press('undo');
  rerender({ now: done.length ? history('b', null) : history(null, null), busy: true });
  const same = history('b', null);
  rerender({ now: same, busy: true });
  rerender({ now: same, busy: false });
  press('undo');
  expect(done).toEqual(['undo b', 'undo b']);
});

it('a key that could not be followed for long is forgotten', () => {
  const now = vi.spyOn(performance, 'now').mockReturnValue(0);
  const { done, press, rerender } = steps(history('b', null));
  rerender({ now: history('b', null), busy: true });
  press('undo');
  now.mockReturnValue(3500);
  rerender({ now: history('b', null), busy: false });
  expect(done).toEqual([]);
});

it('a double click on Undo takes back one entry', () => {
  const undone: string[] = [];
  render(
    <UndoButtons
      history={history('b', null)}
      words={({ id }) => id}
      busy={false}
      onUndo={(id) => undone.push(id)}
      onRedo={() => {}}
    />,
  );
  const button = screen.getByRole('button', { name: 'Undo: b' });
  fireEvent.click(button);
  fireEvent.click(button);
  expect(undone).toEqual(['b']);
});

it('waits where it is not known yet what this screen did, and then takes back just that', () => {
  const undone: string[] = [];
  const buttons = (now: History) => (
    <UndoButtons
      history={now}
      words={({ id }) => id}
      busy={false}
      onUndo={(id) => undone.push(id)}
      onRedo={() => {}}
    />
  );
  const { rerender } = render(buttons({ ...history('of another', 'x'), nameless: true }));
  for (const name of ['Undo: of another', 'Redo: x'])
    expect(screen.getByRole<HTMLButtonElement>('button', { name }).disabled).toBe(true);
  fireEvent.keyDown(window, { key: 'z', code: 'KeyZ', ctrlKey: true });
  expect(undone).toEqual([]);
  rerender(buttons(history('own', null)));
  expect(undone).toEqual(['own']);
});
