// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { STARTING_LAYOUTS, startStorage } from '../../src/core/storage/drawStorage';
import type { Storage } from '../../src/core/storage/storage';
import { CaseEditor } from '../../src/islands/storage/CaseEditor';

const first = startStorage('9f0c1a52-5b0e-4c27-9a8f-0b6f7a1d2c3e', STARTING_LAYOUTS[0]!, 'Strip');
const theirs: Storage = { ...first, name: 'Blue strip', packingShare: 0.6 };

/** An open drawing board of a case, which another screen may change. */
function board(inUse: { slot: string; code: string }[] = [], begun = first) {
  const [onKeep, onLeave] = [vi.fn(), vi.fn()];
  const pots = inUse.map((pot) => ({ ...pot, storageId: first.id, canvasId: 'c', title: 'Hills' }));
  const shown = (now: Storage | null) => (
    <CaseEditor
      first={begun}
      now={now}
      inUse={pots}
      fault={null}
      onKeep={onKeep}
      onLeave={onLeave}
      onDelete={() => {}}
    />
  );
  const { rerender } = render(shown(begun));
  return {
    onKeep,
    onLeave,
    name: () => screen.getByLabelText<HTMLInputElement>('Name of the case'),
    call: (name: string) =>
      fireEvent.change(screen.getByLabelText('Name of the case'), { target: { value: name } }),
    press: (words: string) => fireEvent.click(screen.getByRole('button', { name: words })),
    tell: (now: Storage | null) => rerender(shown(now)),
  };
}

it('a case is saved in the place of what it was drawn from', () => {
  const { onKeep, call, press, tell } = board();
  const asksBeforeLeaving = () => !window.dispatchEvent(new Event('beforeunload', { cancelable: true }));
  expect(asksBeforeLeaving()).toBe(false);
  call('Box');
  expect(asksBeforeLeaving()).toBe(true);
  press('Save this case');
  expect(onKeep).toHaveBeenLastCalledWith({ ...first, name: 'Box' }, first);
  // What is told next is this screen's own doing, whatever order its parts come in.
  tell(Object.fromEntries(Object.entries({ ...first, name: 'Box' }).reverse()) as unknown as Storage);
  expect(screen.queryByRole('alert')).toBeNull();
});

it('what another screen drew meanwhile is not drawn over before the user says so', () => {
  const { onKeep, call, press, tell } = board();
  call('Box');
  tell(theirs);
  expect(screen.getByRole('alert').textContent).toContain('changed on another screen');
  press('Save this case');
  expect(onKeep).not.toHaveBeenCalled();
  press('Keep mine');
  press('Save this case');
  expect(onKeep).toHaveBeenLastCalledWith({ ...first, name: 'Box' }, theirs);
});

it('the other drawing is shown, and one’s own is one step of undo away', () => {
  const { onKeep, call, press, tell, name } = board();
  call('Box');
  tell(theirs);
  press('Show the other one');
  expect(name().value).toBe('Blue strip');
  expect(screen.queryByRole('alert')).toBeNull();
  press('Undo');
  expect(name().value).toBe('Box');
  press('Save this case');
  expect(onKeep).toHaveBeenLastCalledWith({ ...first, name: 'Box' }, theirs);
});

it('a case that another screen deleted is let go, or kept as it is drawn', () => {
  const one = board();
  one.tell(null);
  expect(screen.getByRole('alert').textContent).toContain('deleted on another screen');
  one.press('Let it go');
  expect(one.onLeave).toHaveBeenCalledOnce();
  cleanup();
  const other = board();
  other.tell(null);
  other.press('Keep mine');
  other.press('Save this case');
  expect(other.onKeep).toHaveBeenLastCalledWith(first, undefined);
});

it('a tray that goes gives the pots behind it other numbers, which is told before it is saved', () => {
  // Two trays of 42: what is first in the second one becomes the first of all.
  const two = startStorage(first.id, STARTING_LAYOUTS.find(({ key }) => key === 'trays')!, 'Two');
  const { press } = board([{ slot: 's43', code: '310' }], two);
  expect(screen.queryByText(/another number/)).toBeNull();
  press('Delete tray 1');
  expect(screen.getByText(/another number/).textContent).toContain('310 of Hills from 43 to 1');
  press('Undo');
  expect(screen.queryByText(/another number/)).toBeNull();
});
