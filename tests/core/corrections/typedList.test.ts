import { describe, expect, it } from 'vitest';
import { readColourName } from '../../../src/core/colour/names';
import {
  emptyRow,
  pastedInto,
  readTypedList,
  type TypedRow,
  typedRow,
} from '../../../src/core/corrections/typedList';
import { line } from '../samples';

const row = (key: string, more: Partial<TypedRow>): TypedRow => ({ ...emptyRow(key), ...more });

describe('a list as it is typed', () => {
  it('comes back as it was, each row with its colour', () => {
    const legend = [line(7, { symbol: null, hex: null }), line(2, { finish: 'glow', neededDrills: 1240 })];
    const { colours, faults } = readTypedList(legend.map((colour) => typedRow(colour, String(colour.line))));
    expect(colours).toEqual(legend);
    expect(faults.size).toBe(0);
  });

  it('names the row of a fault, and keeps the colours of the others', () => {
    const { colours, faults } = readTypedList([
      row('a', { code: '412', line: 4, neededDrills: '1.240' }),
      row('b', { code: '', name: 'no code', keyNumber: '2' }),
      row('empty', {}),
      row('c', { code: '4 12', line: 9 }),
      row('d', { code: '98', line: 5, hex: 'no such hue' }),
      row('e', { code: 'Total 5', line: 6, neededDrills: '3' }),
    ]);
    expect(colours.map((each) => [each.line, each.code, each.neededDrills])).toEqual([
      [4, '412', 1240],
      [6, 'Total 5', 3],
    ]);
    expect([...faults.keys()]).toEqual(['b', 'c', 'd']);
  });

  it('takes a colour by its name', () => {
    // CSS Color Module Level 4, table of named colours (from memory).
    expect(readColourName('Dark Sea Green')).toBe('#8fbc8f');
    expect(readColourName('teal')).toBe('#008080');
    expect(readColourName('very dark red')).toBe('#660000');
    expect(readColourName('transparent')).toBeNull();
    expect(readColourName('moonlight')).toBeNull();
    expect(readTypedList([row('a', { code: '1', hex: 'teal' })]).colours[0]!.hex).toBe('#008080');
  });

  it('is filled by what is pasted into a cell, rows and all', () => {
    let made = 0;
    const rows = pastedInto(
      [row('a', { keyNumber: '1' }), row('b', {})],
      0,
      'symbol',
      'A\t412\tMoss\nB\t98\nC\t77',
      () => `new ${++made}`,
    );
    expect(
      rows.map(({ key, keyNumber, symbol, code, name }) => [key, keyNumber, symbol, code, name]),
    ).toEqual([
      ['a', '1', 'A', '412', 'Moss'],
      ['b', '', 'B', '98', ''],
      ['new 1', '', 'C', '77', ''],
    ]);
  });
});
