// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { Letter } from '../../src/islands/requests/Letter';

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const clipboard = () => vi.spyOn(navigator.clipboard, 'writeText');

const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
const letter = (text: string) => <Letter text={text}>{null}</Letter>;

it('says of a letter that it was copied, and not of the one that takes its place', async () => {
  const writeText = clipboard().mockResolvedValue();
  const { rerender } = render(letter('Two bags of 412, please.'));
  press('Copy');
  await screen.findByRole('button', { name: 'Copied' });
  expect(writeText).toHaveBeenLastCalledWith('Two bags of 412, please.');
  rerender(letter('Two bags of 98, please.'));
  press('Copy');
  await screen.findByRole('button', { name: 'Copied' });
  expect(writeText).toHaveBeenLastCalledWith('Two bags of 98, please.');
});

it('selects the letter and says so where the browser does not let it copy', async () => {
  clipboard().mockRejectedValueOnce(new Error('Not allowed')).mockResolvedValue();
  render(letter('Two bags of 412, please.'));
  press('Copy');
  await screen.findByText(/does not let this page copy/);
  const field = screen.getByLabelText<HTMLTextAreaElement>('Letter to the seller');
  expect([field.selectionStart, field.selectionEnd]).toEqual([0, field.value.length]);
  expect(screen.queryByRole('button', { name: 'Copied' })).toBeNull();
  press('Copy');
  await screen.findByRole('button', { name: 'Copied' });
  expect(screen.queryByText(/does not let this page copy/)).toBeNull();
});
