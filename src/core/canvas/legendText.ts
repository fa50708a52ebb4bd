import type { LegendLine } from './legend';

/**
 * A colour list as a short text, a line a colour, fields parted by tabs: in a page it takes a fifth of what the same list
 * takes as objects. What is not there is an empty field; tabs and line breaks within a field are written `\t` and `\n`.
 */
export function legendToText(legend: readonly LegendLine[]): string {
  return legend
    .map((line) =>
      [
        String(line.line),
        line.keyNumber,
        line.symbol ?? '',
        line.code,
        line.name,
        line.hex ?? '',
        line.finish,
        String(line.neededDrills),
        String(line.packets),
        line.origin ?? '',
        line.drawing ?? '',
      ]
        .map(escaped)
        .join('\t'),
    )
    .join('\n');
}

/** Inverse of {@link legendToText}. */
export function legendFromText(text: string): LegendLine[] {
  if (text === '') return [];
  return text.split('\n').map((row): LegendLine => {
    const [line, keyNumber, symbol, code, name, hex, finish, neededDrills, packets, origin, drawing] = row
      .split('\t')
      .map(plain) as Fields;
    return {
      line: Number(line),
      keyNumber,
      symbol: symbol || null,
      code,
      name,
      hex: hex || null,
      finish: finish as LegendLine['finish'],
      neededDrills: Number(neededDrills),
      packets: Number(packets),
      ...(origin === '' ? {} : { origin: 'own' as const }),
      ...(drawing === '' ? {} : { drawing }),
    };
  });
}

type Fields = [
  line: string,
  keyNumber: string,
  symbol: string,
  code: string,
  name: string,
  hex: string,
  finish: string,
  neededDrills: string,
  packets: string,
  origin: string,
  drawing: string,
];

const SIGNS: Record<string, string> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r' };
const MEANT: Record<string, string> = { '\\': '\\', t: '\t', n: '\n', r: '\r' };

function escaped(field: string): string {
  return field.replace(/[\\\t\n\r]/g, (sign) => SIGNS[sign]!);
}

function plain(field: string): string {
  return field.replace(/\\(.)/g, (_, sign: string) => MEANT[sign] ?? sign);
}
