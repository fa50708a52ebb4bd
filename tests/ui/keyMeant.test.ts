import { describe, expect, it } from 'vitest';
import { keyMeant } from '../../src/ui/keyMeant';

const press = (key: string, code: string, shiftKey = false) => keyMeant({ key, code, shiftKey });

// What keyboards of these layouts send (UI Events KeyboardEvent code values, W3C; layouts: common practice, no source).
describe('a key', () => {
  it('means the letter it makes where that is a Latin one, wherever it lies', () => {
    expect(press('a', 'KeyA')).toBe('a');
    expect(press('A', 'KeyA', true)).toBe('A');
    expect(press('z', 'KeyY')).toBe('z'); // German
    expect(press('a', 'KeyQ')).toBe('a'); // French
    expect(press('x', 'KeyB')).toBe('x'); // Dvorak
  });

  it('of another script means the Latin letter on it', () => {
    expect(press('я', 'KeyZ')).toBe('z');
    expect(press('Ф', 'KeyA', true)).toBe('a');
    expect(press('α', 'KeyA')).toBe('a');
    expect(press('מ', 'KeyN')).toBe('n');
    expect(press('لا', 'KeyB')).toBe('b');
  });

  it('in the row of digits means its digit, and with Shift the sign it makes', () => {
    expect(press('1', 'Digit1')).toBe('1');
    expect(press('&', 'Digit1')).toBe('1'); // French
    expect(press('à', 'Digit0')).toBe('0');
    expect(press('١', 'Digit1')).toBe('1');
    expect(press('2', 'Digit2', true)).toBe('2'); // French, with Shift
    expect(press('!', 'Digit1', true)).toBe('!');
  });

  it('that makes a sign with a meaning of its own keeps it', () => {
    expect(press('-', 'Digit6')).toBe('-'); // French
    expect(press('+', 'Digit1')).toBe('+'); // Czech
    expect(press('?', 'Digit7', true)).toBe('?'); // Russian
  });

  it('with a name, or of a hand that sends no place, is what it says', () => {
    expect(press('Enter', 'NumpadEnter')).toBe('Enter');
    expect(press(' ', 'Space')).toBe(' ');
    expect(press('PageDown', '')).toBe('PageDown');
    expect(press('n', '')).toBe('n');
    expect(press('Process', 'KeyA')).toBe('Process');
    expect(press('Process', 'Digit1')).toBe('Process');
  });
});
