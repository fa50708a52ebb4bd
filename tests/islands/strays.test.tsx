// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { ListedBag } from '../../src/core/checkin/bagLedger';
import { BagList } from '../../src/islands/checkin/BagList';
import { Strays } from '../../src/islands/checkin/Strays';
import { line } from '../core/samples';

const legend = [line(1, { code: '412' }), line(2, { code: '98' })];
const bags = (count: number) =>
  Array.from({ length: count }, (_, i) => ({ id: `b${i}`, label: `Z${i}`, drills: 200 }) as ListedBag);

describe('bags of no colour in the list', () => {
  it('are given to a colour, one by one', () => {
    const onAssign = vi.fn();
    const [first, second] = bags(2);
    const none = { onKeep: vi.fn(), onRemove: vi.fn() };
    render(<Strays bags={[first!, second!]} matches={[]} legend={legend} onAssign={onAssign} {...none} />);
    fireEvent.change(screen.getByLabelText('Give Z1 to a colour'), { target: { value: '2' } });
    expect(onAssign).toHaveBeenCalledExactlyOnceWith(second, legend[1]);
  });

  it('of a whole heap are shown a few at a time, and how many there are', () => {
    const acts = { onAssign: vi.fn(), onKeep: vi.fn(), onRemove: vi.fn() };
    render(<Strays bags={bags(1500)} matches={[]} legend={legend} {...acts} />);
    expect(screen.getByRole('heading').textContent).toBe('Not in the colour list: 1,500 bags');
    const rows = () => within(screen.getByRole('list')).getAllByRole('listitem').length;
    expect(rows()).toBe(12);
    fireEvent.click(screen.getByRole('button', { name: 'Show 12 more' }));
    expect(rows()).toBe(24);
    cleanup();
    render(<Strays bags={bags(13)} matches={[]} legend={legend} {...acts} />);
    fireEvent.click(screen.getByRole('button', { name: 'Show 1 more' }));
    expect(rows()).toBe(13);
    expect(screen.queryByRole('button', { name: /^Show/ })).toBeNull();
  });
});

it('a bag is corrected in what was touched; the rest is as another screen corrected it meanwhile', () => {
  const onChange = vi.fn();
  const bag = (more: Partial<ListedBag> = {}): ListedBag =>
    ({
      id: 'b1',
      line: 1,
      label: '412',
      drills: 200,
      how: 'nominal',
      spread: null,
      shared: [],
      origin: 'kit',
      removedBy: null,
      countedAt: '2026-05-01T10:00:00Z',
      changedAt: null,
      screen: 0,
      ...more,
    }) as ListedBag;
  const acts = { legend, onChange, onRemove: vi.fn(), onBringBack: vi.fn() };
  const { rerender } = render(<BagList bags={[bag()]} {...acts} />);
  fireEvent.click(screen.getByRole('button', { name: 'Edit' }));
  fireEvent.change(screen.getByLabelText('Drills'), { target: { value: '180' } });
  const moved = bag({ line: 2, how: 'counted', origin: 'seller', drills: 199 });
  rerender(<BagList bags={[moved]} {...acts} />);
  expect(screen.getByLabelText<HTMLSelectElement>('Colour').value).toBe('2');
  fireEvent.click(screen.getByRole('button', { name: 'Save' }));
  const said = { line: 2, drills: 180, how: 'counted', origin: 'seller', spread: null, shared: [] };
  expect(onChange).toHaveBeenCalledExactlyOnceWith(moved, said);
});
