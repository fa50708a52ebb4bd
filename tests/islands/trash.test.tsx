// @vitest-environment happy-dom
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { TrashSlip, type TrashWish } from '../../src/islands/checkin/TrashSlip';

it('numbers of bad drills leave their fields when they are sent, and are there again when they are refused', async () => {
  const onRecord = vi.fn<(record: TrashWish, refused?: () => void) => void>();
  const trash = { share: 0.03, handled: 0 } as Parameters<typeof TrashSlip>[0]['trash'];
  render(<TrashSlip trash={trash} records={[]} onRecord={onRecord} />);
  const [thrown, handled] = ['Thrown out', 'of drills'].map((words) =>
    screen.getByLabelText<HTMLInputElement>(words),
  ) as [HTMLInputElement, HTMLInputElement];
  const both = () => [thrown.value, handled.value];
  const record = async (out: string, of: string) => {
    fireEvent.change(thrown, { target: { value: out } });
    fireEvent.change(handled, { target: { value: of } });
    const before = onRecord.mock.calls.length;
    fireEvent.click(screen.getByRole('button', { name: 'Record' }));
    await waitFor(() => expect(onRecord.mock.calls.length).toBe(before + 1));
    return onRecord.mock.lastCall!;
  };
  const [first, refused] = await record('3', '200');
  expect(first).toMatchObject({ thrown: 3, handled: 200 });
  expect(both()).toEqual(['', '']);
  act(() => refused!());
  expect(both()).toEqual(['3', '200']);
  // Twice as many of a second bag are a second record, also where they are the same.
  const [second, refusedLate] = await record('3', '200');
  expect(second).toMatchObject({ thrown: 3, handled: 200 });
  // The next ones are typed already: the late word does not take their place.
  fireEvent.change(thrown, { target: { value: '1' } });
  act(() => refusedLate!());
  expect(both()).toEqual(['1', '']);
});
