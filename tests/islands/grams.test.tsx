// @vitest-environment happy-dom
import { fireEvent, render, screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { GramsField } from '../../src/islands/checkin/weigh/GramsField';

function field(stepGrams = 0.01) {
  const onGrams = vi.fn();
  const onDone = vi.fn();
  const onEnter = vi.fn();
  render(
    <GramsField words="Grams" display={{ stepGrams }} onGrams={onGrams} onDone={onDone} onEnter={onEnter} />,
  );
  const input = screen.getByLabelText<HTMLInputElement>(/^Grams/);
  const type = (text: string) => fireEvent.change(input, { target: { value: text } });
  return { input, type, onGrams, onDone, onEnter };
}

describe('typed grams', () => {
  it('are none any more once what stands there is no weight, or nothing', () => {
    const { type, onGrams, input } = field();
    type('34.5');
    type('34.5x');
    expect(input.getAttribute('aria-invalid')).toBe('true');
    expect(screen.getByRole('alert').textContent).toBe('0 to 5,000 g');
    type('3');
    type('');
    expect(onGrams.mock.calls).toEqual([[34.5], [null], [3], [null]]);
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('with more places than the display has are refused, with a word to the display', () => {
    const { type, onGrams } = field();
    type('1,240');
    expect(onGrams).toHaveBeenLastCalledWith(null);
    expect(screen.getByRole('alert').textContent).toBe('A display in steps of 0.01 g does not show 1,240.');
  });

  it('are done when the field is left, and entered by Enter', () => {
    const { input, onDone, onEnter } = field();
    fireEvent.keyDown(input, { key: 'Enter' });
    expect([onEnter.mock.calls.length, onDone.mock.calls.length]).toEqual([1, 0]);
    fireEvent.blur(input);
    expect(onDone).toHaveBeenCalledOnce();
  });
});
