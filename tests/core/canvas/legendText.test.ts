import fc from 'fast-check';
import { expect, it } from 'vitest';
import { legendFromText, legendToText } from '../../../src/core/canvas/legendText';
import { line } from '../samples';

it('a colour list as a text comes back as it was, whatever its names hold', () => {
  const field = fc.string({ unit: 'grapheme', minLength: 1, maxLength: 12 });
  const odd = fc.constantFrom('a\tb', 'two\nlines', 'back\\slash', '\\t', '\r', '“ ”', '&quot;');
  fc.assert(
    fc.property(
      fc.array(
        fc.tuple(fc.oneof(field, odd), fc.oneof(field, odd), fc.option(fc.oneof(field, odd)), fc.boolean()),
      ),
      (rows) => {
        const legend = rows.map(([code, name, symbol, own], i) =>
          line(i + 1, {
            code,
            name,
            symbol,
            hex: own ? null : '#102030',
            ...(own ? { origin: 'own' as const, drawing: 'M0 0L10 10Z' } : {}),
          }),
        );
        expect(legendFromText(legendToText(legend))).toEqual(legend);
      },
    ),
  );
  expect(legendFromText('')).toEqual([]);
});
