import { describe, expect, it } from 'vitest';
import { isNestedDeeper } from '../../../src/core/words/nesting';
import { escapedXml } from '../../../src/core/words/xml';

describe('how deep JSON is nested', () => {
  it.each([
    ['[[1]]', 1, true],
    ['[[1]]', 2, false],
    ['{"a":{"b":1}}', 1, true],
    ['{"a":{"b":1}}', 2, false],
    ['[{"a":[1]}]', 2, true],
    // One after the other is not one in the other.
    ['[[],[],[],{},{}]', 2, false],
    ['[{},[]]', 1, true],
    // Brackets in quotes are words; so is a quote after a backslash, and the backslash after one.
    ['["[[[["]', 1, false],
    ['["{\\"[["]', 1, false],
    ['["\\\\",[1]]', 1, true],
    ['"["', 0, false],
    ['', 0, false],
  ] as const)('%s is deeper than %i: %s', (json, most, deeper) =>
    expect(isNestedDeeper(json, most)).toBe(deeper),
  );

  it('is told of more levels than a stack holds', () =>
    expect(isNestedDeeper('['.repeat(2_000_000), 1_999_999)).toBe(true));
});

it('text is safe within XML and its attributes', () =>
  expect(escapedXml('a & b < c > "d" é')).toBe('a &amp; b &lt; c &gt; &quot;d&quot; é'));
