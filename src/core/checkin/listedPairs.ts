/** `310: 200`, `310 = 200`, `310 x 200 drills`, `B-12 – 1,200`; a stroke or a cross parts only between spaces. */
const PAIR = /^([^:=,;|\t]+?)(?:\s*[:=]\s*|\s+[x×–—-]\s+)(\d[\d.,'’\s]*?)\s*(?:\p{L}+\.?)?$/u;
/** Words over such a list, parted alike. */
const HEADING = /^([^:=,;|\t\d]+?)\s*[:=]\s*([^:=,;|\t\d]+)$/;
/** What stands before each line of a list: its number, a dot or a stroke. */
const NUMBER = /^[(#]?(\d{1,4})(?:\.\s+|\.?\)\s*)(?=\S)/;
const BULLET = /^[-–—*•·‣◦]\s+/;
/** What is longer is no line of such a list, and would take long to be looked through. */
const LONGEST = 120;
/** A list is one where at least so many of its lines are. */
const MOST = 0.8;

/**
 * A list as one writes it by hand: on each line a code and how many.
 * @returns code and amount, line by line, after the number of the line where they are numbered; other lines as they are;
 * null where the lines are no such list
 * @example listedPairs('310: 200\n321: 150') // [['310', '200'], ['321', '150']]
 * @example listedPairs('1. 310: 200\n2. 321: 150') // [['1', '310', '200'], ['2', '321', '150']]
 */
export function listedPairs(text: string): string[][] | null {
  const lines = text.split(/\r\n|\r|\n/).map((line) => line.trim().replace(BULLET, ''));
  const isPair = (line: string) => line.length <= LONGEST && PAIR.test(line);
  const pairs = lines.filter(isPair);
  const first = lines.find((line) => line !== '') ?? '';
  // The first may be its title, or say what stands below.
  const all = lines.filter((line) => line !== '').length - (isPair(first) ? 0 : 1);
  if (pairs.length < 2 || pairs.length < MOST * all) return null;
  const parted = (line: string) =>
    line.length > LONGEST ? null : (PAIR.exec(line) ?? HEADING.exec(line))?.slice(1, 3);
  const numbers = lines.flatMap((line) => NUMBER.exec(line)?.[1] ?? []).map(Number);
  const isNumbered = pairs.every((line) => NUMBER.test(line)) && runOn(numbers);
  return lines.map((line) => {
    const [before, number] = (isNumbered && NUMBER.exec(line)) || ['', ''];
    const rest = line.slice(before.length);
    return [...(isNumbered ? [number] : []), ...(parted(rest) ?? [rest])];
  });
}

/**
 * Whether numbers count lines: each is the next after the one before it, or a few were left out of those that begin with
 * the first. Codes that rise seldom do either.
 */
function runOn(numbers: readonly number[]): boolean {
  if (numbers.every((number, i) => number === numbers[0]! + i)) return true;
  const rises = numbers.every((number, i) => i === 0 || number > numbers[i - 1]!);
  return rises && numbers[0] === 1 && numbers.at(-1)! <= 2 * numbers.length;
}
