// @vitest-environment happy-dom
import { act, fireEvent, render, screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import { TermWord } from '../../src/ui/TermWord';

it('a word explains itself until it is pressed again, Escape is, or the screen is turned', () => {
  render(<TermWord term="placement">placement</TermWord>);
  const word = screen.getByRole('button');
  const sentence = document.querySelector<HTMLElement>('[role="tooltip"]')!;
  for (const end of [
    () => fireEvent.click(word),
    () => fireEvent.keyDown(word, { key: 'Escape' }),
    () => act(() => void window.dispatchEvent(new Event('resize'))),
  ]) {
    expect(sentence.hidden).toBe(true);
    fireEvent.click(word);
    expect(sentence.hidden).toBe(false);
    end();
  }
  expect(sentence.hidden).toBe(true);
});
