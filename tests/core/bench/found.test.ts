import { describe, expect, it } from 'vitest';
import { benchPlace } from '../../../src/core/bench/found';
import { panelsSideBySide } from '../../../src/core/canvas/canvas';
import { cutIntoBlocks } from '../../../src/core/sections/blockGrid';
import { chartOfRows, line } from '../samples';

// Two sections of three columns: colour 1 on the left, 2 on the right but for one square.
const chart = chartOfRows('112222', '11.222');
const sections = cutIntoBlocks(panelsSideBySide({ width: 6, height: 2 }, 1), { columns: 3, rows: 2 });
const legend = [line(1), line(2), line(3)];
const find = (what: Parameters<typeof benchPlace>[0], here = 1) => benchPlace(what, chart, sections, here, 3);

describe('what was found, on the bench', () => {
  it('is a square in its section, its colour in front', () => {
    expect(find({ kind: 'cell', x: 4, y: 1 })).toEqual({
      kind: 'there',
      section: 2,
      cell: { x: 4, y: 1 },
      line: 2,
    });
    // A bare square has no colour.
    expect(find({ kind: 'cell', x: 2, y: 1 })).toMatchObject({ section: 1, line: null });
  });

  it('is a section, or none', () => {
    expect(find({ kind: 'section', number: 2 })).toMatchObject({ section: 2, cell: null, line: null });
    expect(find({ kind: 'section', number: 3 })).toEqual({
      kind: 'nowhere',
      words: 'There is no section 3; the last is 2.',
    });
  });

  it('is a colour here, else where most of it goes', () => {
    const colour = (...lines: number[]) => ({
      kind: 'colour' as const,
      lines: lines.map((each) => legend[each - 1]!),
    });
    expect(find(colour(2))).toMatchObject({ section: 1, line: 2 });
    expect(find(colour(1), 2)).toMatchObject({ section: 1, line: 1 });
    expect(find(colour(1, 2), 2)).toMatchObject({ section: 2, line: 2 });
    expect(find(colour(3))).toMatchObject({ kind: 'nowhere' });
  });
});
