import { describe, expect, it } from 'vitest';
import { tooMuchJson } from '../../../src/core/words/nesting';
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
    expect(tooMuchJson(json, most)).toBe(deeper ? 'deep' : null),
  );

  it('is told of more levels than a stack holds', () =>
    expect(tooMuchJson('['.repeat(2_000_000), 1_999_999)).toBe('deep'));

  it('is told apart from how many parts it has, of which words are none', () => {
    expect(tooMuchJson('[{},[]]', 2, 3)).toBeNull();
    expect(tooMuchJson('[{},[]]', 2, 2)).toBe('many');
    expect(tooMuchJson('[{},[]]', 1, 2)).toBe('deep');
    expect(tooMuchJson('["{[{[",1,2,3]', 1, 1)).toBeNull();
  });
});

it('text is safe within XML and its attributes', () =>
  expect(escapedXml('a & b < c > "d" é')).toBe('a &amp; b &lt; c &gt; &quot;d&quot; é'));
