// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { readSheetTable } from '../../src/core/checkin/sheetTable';
import { SheetPage } from '../../src/islands/checkin/SheetIn';
import type { ShelfEntry } from '../../src/server/shelf/contract';
import { standInFetch } from './requests';

const entry = { canvas: { id: 'c1', title: 'Kit' }, hasChart: false } as ShelfEntry;
/** Workbooks that are read, in their order; each is answered when the test says so. */
let held: { answer: (rows: string) => void; refuse: () => void }[];
beforeEach(() => {
  held = [];
  standInFetch(
    () =>
      new Promise<Response>((resolve) => {
        held.push({
          answer: (rows) => resolve(Response.json({ ...readSheetTable(rows), sheets: ['One'] })),
          refuse: () => resolve(Response.json({ detail: 'This is no workbook.' }, { status: 422 })),
        });
      }),
  );
});
afterEach(() => {
  vi.unstubAllGlobals();
  cleanup();
});

const choose = (name: string) =>
  fireEvent.change(screen.getByLabelText(/^Choose a file/), { target: { files: [new File(['x'], name)] } });
const heading = 'Code\tDrills\n';
const shown = () => screen.queryByText(/ colours?$/)?.textContent;

it('of two workbooks the one that was chosen last is shown, however the answers come', async () => {
  render(<SheetPage entry={entry} legend="" />);
  choose('wrong.xlsx');
  await waitFor(() => expect(held).toHaveLength(1));
  choose('right.xlsx');
  await waitFor(() => expect(held).toHaveLength(2));
  held[1]!.answer(`${heading}412\t190\n98\t96`);
  await waitFor(() => expect(shown()).toBe('2 colours'));
  held[0]!.answer(`${heading}1204\t90`);
  await waitFor(() =>
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save this colour list' }).disabled).toBe(
      false,
    ),
  );
  expect(shown()).toBe('2 colours');
});

it('what is pasted stays, whether a workbook that was chosen before is answered or refused', async () => {
  render(<SheetPage entry={entry} legend="" />);
  for (const end of ['answer', 'refuse'] as const) {
    held = [];
    choose('earlier.xlsx');
    await waitFor(() => expect(held).toHaveLength(1));
    fireEvent.change(screen.getByLabelText('Or paste the rows here'), {
      target: { value: `${heading}412\t190\n98\t96\n1204\t90` },
    });
    await waitFor(() => expect(shown()).toBe('3 colours'));
    held[0]![end](`${heading}1204\t90`);
    await waitFor(() =>
      expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save this colour list' }).disabled).toBe(
        false,
      ),
    );
    expect([shown(), screen.queryByText('This is no workbook.')]).toEqual(['3 colours', null]);
  }
});

it('the row of the headings is typed figure by figure, in one field that keeps the focus', async () => {
  render(<SheetPage entry={entry} legend="" />);
  const rows = Array.from({ length: 14 }, (_, i) => `${412 + i}\t190`);
  rows[11] = 'Code\tDrills';
  fireEvent.change(screen.getByLabelText('Or paste the rows here'), { target: { value: rows.join('\n') } });
  await waitFor(() => expect(shown()).toMatch(/colours/));
  const input = screen.getByLabelText<HTMLInputElement>(/^Headings in row/);
  input.focus();
  fireEvent.change(input, { target: { value: '1' } });
  await waitFor(() => expect(screen.queryByText('Reading…')).toBeNull());
  expect([document.activeElement, input.value]).toEqual([input, '1']);
  fireEvent.change(input, { target: { value: '12' } });
  await waitFor(() => expect(shown()).toBe('2 colours'));
  expect([document.activeElement, input.value]).toEqual([input, '12']);
});
