// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { PackingPage } from '../../src/islands/packing/PackingPage';
import { line, sampleCanvas } from '../core/samples';
import { held, standInFetch } from './requests';
import { standInSource } from './standInSource';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it('a packing list is not printed while sizes are typed to which it does not answer yet', async () => {
  standInSource();
  const listed = (size: number) => [
    { line: line(1), wantedDrills: 110, bags: [{ size, count: 1 }], packedDrills: size },
  ];
  let answer: Promise<Response> | Response = Response.json(listed(200));
  standInFetch(() => answer);
  render(<PackingPage entry={{ canvas: sampleCanvas() } as Parameters<typeof PackingPage>[0]['entry']} />);
  const print = screen.getByRole<HTMLButtonElement>('button', { name: 'Print' });
  expect(print.disabled).toBe(true);
  await screen.findByText('1 × 200');
  expect(print.disabled).toBe(false);
  const late = held();
  answer = late.promise;
  fireEvent.change(screen.getByLabelText('Sizes in stock, in drills'), { target: { value: '500' } });
  expect(print.disabled).toBe(true);
  await act(async () => late.release(Response.json(listed(500))));
  await screen.findByText('1 × 500');
  expect(print.disabled).toBe(false);
});
