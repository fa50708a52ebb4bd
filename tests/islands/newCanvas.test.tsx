// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { NewCanvas } from '../../src/islands/canvas/NewCanvas';
import { standInFetch } from './requests';

afterEach(() => {
  vi.unstubAllGlobals();
  cleanup();
});
const type = (label: RegExp, text: string) =>
  act(async () => {
    fireEvent.change(screen.getByLabelText(label), { target: { value: text } });
  });
const told = () => screen.getByText(/squares, .* in all/).textContent;

it('squares are those of the pitch that stands there, whichever is typed first, figure by figure', async () => {
  const asked = standInFetch(() => Response.json({}, { status: 201 }));
  render(<NewCanvas />);
  await type(/^Title/, 'Two eight');
  await type(/^Width/, '40');
  await type(/^Height/, '50');
  expect(told()).toContain('160 × 200 squares');
  for (const text of ['', '2', '2.', '2.8']) await type(/^Pitch/, text);
  // 400 ÷ 2.8 = 142.9 and 500 ÷ 2.8 = 178.6.
  expect(told()).toContain('143 × 179 squares, 25,597 in all: 40 × 50.1 cm');
  await type(/^Width/, '28');
  expect(told()).toContain('100 × 179 squares');
  await act(async () => {
    fireEvent.click(screen.getByRole('button', { name: /^Put it on the shelf/ }));
  });
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0]!.body).toMatchObject({ width: 100, height: 179, pitchMm: 2.8 });
});
