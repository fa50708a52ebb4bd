// @vitest-environment happy-dom
import { act, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import { NumberField } from '../../src/ui/NumberField';

let taken: number[] = [];
let set: (value: number) => void = () => {};
function Held({ late = false, whole = false }: { late?: boolean; whole?: boolean }) {
  const [value, setValue] = useState(5);
  set = setValue;
  return (
    <NumberField
      words="Drills"
      value={value}
      least={1}
      most={2000}
      whole={whole}
      late={late}
      onChange={(next) => {
        taken.push(next);
        setValue(next);
      }}
    />
  );
}
let sent: number[] = [];
function Form() {
  const [value, setValue] = useState(5);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        sent.push(value);
      }}
    >
      <NumberField words="Drills" value={value} least={1} most={2000} whole onChange={setValue} />
      <button type="submit">Save</button>
    </form>
  );
}
function field(more: { late?: boolean; whole?: boolean } = {}): HTMLInputElement {
  taken = [];
  render(<Held {...more} />);
  return screen.getByLabelText<HTMLInputElement>(/^Drills/);
}
const type = (input: HTMLInputElement, text: string) => fireEvent.change(input, { target: { value: text } });

describe('a field for a number', () => {
  it('takes comma and point, and only what fits', () => {
    const input = field();
    type(input, '2,5');
    type(input, '2.75');
    type(input, '');
    type(input, '0');
    type(input, '2001');
    type(input, 'many');
    // Once it does not fit, the number is what it was before anything was typed.
    expect(taken).toEqual([2.5, 2.75, 5]);
    // What was typed stays to be mended, with what would fit beside it.
    expect(input.value).toBe('many');
    expect(screen.getByRole('alert').textContent).toBe('1 to 2,000');
    expect(input.getAttribute('aria-invalid')).toBe('true');
  });

  it('wants whole numbers where things are counted', () => {
    const input = field({ whole: true });
    type(input, '2,5');
    expect(taken).toEqual([]);
    type(input, '12');
    expect(taken).toEqual([12]);
  });

  it('shows a value that changes from outside, not what was typed before', () => {
    const input = field();
    type(input, '7.0');
    expect(input.value).toBe('7.0');
    act(() => set(9));
    expect(input.value).toBe('9');
    fireEvent.blur(input);
    expect(input.value).toBe('9');
  });

  it('waits, where told to, until it is left or Enter is pressed', () => {
    const input = field({ late: true });
    type(input, '1');
    type(input, '12');
    expect(taken).toEqual([]);
    // Enter that only chooses among signs, and the one that Safari tells of after the choice (UI Events, W3C: isComposing;
    // 229 as keyCode while an input method works on the key).
    fireEvent.keyDown(input, { key: 'Enter', isComposing: true });
    fireEvent.keyDown(input, { key: 'Enter', keyCode: 229 });
    expect(taken).toEqual([]);
    fireEvent.keyDown(input, { key: 'Enter' });
    expect(taken).toEqual([12]);
    type(input, '13');
    fireEvent.blur(input);
    expect(taken).toEqual([12, 13]);
    // The same value again is none.
    fireEvent.blur(input);
    expect(taken).toEqual([12, 13]);
  });

  it('that was emptied or mistyped leaves none of its digits behind', () => {
    const input = field({ whole: true });
    act(() => set(200));
    for (const text of ['20', '2', '']) type(input, text);
    expect(taken).toEqual([20, 2, 200]);
    for (const text of ['1', '15', '15o', '15o0']) type(input, text);
    expect(taken.slice(3)).toEqual([1, 15, 200]);
    type(input, '150');
    fireEvent.blur(input);
    // From now on 150 is what it was before; what was entered by Enter as well.
    type(input, '150x');
    expect(taken.slice(6)).toEqual([150]);
    type(input, '160');
    fireEvent.keyDown(input, { key: 'Enter' });
    type(input, '1600000');
    expect(taken.slice(7)).toEqual([160]);
  });

  it('holds back a form around it as long as it does not fit', () => {
    sent = [];
    render(<Form />);
    const input = screen.getByLabelText<HTMLInputElement>(/^Drills/);
    const save = () => fireEvent.click(screen.getByRole('button'));
    type(input, '15o');
    expect(input.validationMessage).toBe('1 to 2,000');
    save();
    expect(sent).toEqual([]);
    type(input, '150');
    save();
    expect(sent).toEqual([150]);
  });
});
