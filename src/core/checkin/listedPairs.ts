/** `310: 200`, `310 = 200`, `310 x 200 drills`, `B-12 – 1,200`; a stroke or a cross parts only between spaces. */
const PAIR = /^([^:=,;|\t]+?)(?:\s*[:=]\s*|\s+[x×–—-]\s+)(\d[\d.,'’\s]*?)\s*(?:\p{L}+\.?)?$/u;
/** Words over such a list, parted alike. */
const HEADING = /^([^:=,;|\t\d]+?)\s*[:=]\s*([^:=,;|\t\d]+)$/;
/** What is longer is no line of such a list, and would take long to be looked through. */
const LONGEST = 120;
/** A list is one where at least so many of its lines are. */
const MOST = 0.8;

/**
 * A list as one writes it by hand: on each line a code and how many.
 * @returns code and amount, line by line, other lines as they are; null where the lines are no such list
 * @example listedPairs('310: 200\n321: 150') // [['310', '200'], ['321', '150']]
 */
export function listedPairs(text: string): string[][] | null {
  const lines = text.split(/\r\n|\r|\n/).map((line) => line.trim());
  const parted = (line: string) =>
    line.length > LONGEST ? null : (PAIR.exec(line) ?? HEADING.exec(line))?.slice(1, 3);
  const pairs = lines.filter((line) => line.length <= LONGEST && PAIR.test(line)).length;
  if (pairs < 2 || pairs < MOST * lines.filter((line) => line !== '').length) return null;
  return lines.map((line) => parted(line) ?? [line]);
}
