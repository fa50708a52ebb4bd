import { plainSigns } from '../words/plainSigns';

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/**
 * Natural order of colour codes: by prefix, then by number, so 98 stands before 412 and 412 before 1204.
 * @example ['10', '9', 'SH2'].sort(compareCodes) // ['9', '10', 'SH2']
 */
export function compareCodes(first: string, second: string): number {
  return collator.compare(first, second) || (first < second ? -1 : first > second ? 1 : 0);
}

/**
 * A code as it compares when typed: without spaces, dashes or letter case, in plain signs.
 * @example looseCode(' sh-077 ') // 'sh077'
 */
export function looseCode(code: string): string {
  return plainSigns(code)
    .replace(/[\s\-_.]/g, '')
    .toLowerCase();
}
