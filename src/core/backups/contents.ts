import { counted } from '../words/numbers';

/** What there is on a shelf, as a person would count it. */
export interface Contents {
  canvases: { title: string; laid: number; deleted: boolean }[];
  bags: number;
  marks: number;
  leftovers: number;
  cases: number;
  photos: number;
}

/** One sentence. @param contents null where nobody counted */
export function contentsInWords(contents: Contents | null): string {
  if (!contents) return 'It holds everything, as an older Oculent kept it.';
  const { canvases, leftovers, cases, photos, bags } = contents;
  const here = canvases.filter(({ deleted }) => !deleted).length;
  const rest: [n: number, noun: string][] = [
    [bags, 'bag'],
    [leftovers, 'leftover'],
    [cases, 'case'],
    [photos, 'photo'],
  ];
  const parts = [
    counted(here, 'canvas', 'canvases'),
    ...rest.filter(([n]) => n > 0).map(([n, noun]) => counted(n, noun)),
  ];
  const last = parts.pop()!;
  return `${parts.length > 0 ? `${parts.join(', ')} and ` : ''}${last}.`;
}

/** `840 kB`, `12.3 MB`: sizes of files. */
export function sizeInWords(bytes: number): string {
  if (bytes < 1_000_000) return `${Math.max(1, Math.round(bytes / 1000)).toLocaleString('en')} kB`;
  return `${(bytes / 1_000_000).toLocaleString('en', { maximumFractionDigits: 1 })} MB`;
}
