import Papa from 'papaparse';
import { type Canvas, sizeInWords } from '../canvas/canvas';
import type { LegendLine } from '../canvas/legend';
import type { LineSupply } from '../checkin/supply';
import { lackOf } from '../checkin/supply';
import { compareCodes } from '../codes/codes';
import { many } from '../words/numbers';

/** How far a request for a colour has come. */
export const REQUEST_STATES = ['asked', 'promised', 'arrived'] as const;
export type RequestState = (typeof REQUEST_STATES)[number];

/** One colour to ask the sender for. */
export interface RequestLine {
  line: LegendLine;
  neededDrills: number;
  receivedDrills: number;
  shortDrills: number;
  bagsMissing: number;
  /** Null while nobody has asked. */
  state: RequestState | null;
}

/**
 * Colours that lack drills, or bags that the sheet lists, in code order.
 * A colour that was asked for and lacks nothing any more is shown once as arrived.
 */
export function requestLines(
  legend: readonly LegendLine[],
  supply: readonly LineSupply[],
  states: ReadonlyMap<number, RequestState>,
): RequestLine[] {
  return legend
    .map((line, i): RequestLine => {
      const own = supply[i]!;
      const { drills: shortDrills, bags: bagsMissing } = lackOf(own);
      const asked = states.get(line.line) ?? null;
      return {
        line,
        neededDrills: own.neededDrills,
        receivedDrills: own.suppliedDrills,
        shortDrills,
        bagsMissing,
        // A bag that has come clears the request by itself.
        state: asked !== null && shortDrills === 0 && bagsMissing === 0 ? 'arrived' : asked,
      };
    })
    .filter((each) => each.shortDrills > 0 || each.bagsMissing > 0 || each.state !== null)
    .sort((a, b) => compareCodes(a.line.code, b.line.code));
}

/** Those of the lines that still have to come. */
export function stillOpen<Line extends RequestLine>(lines: readonly Line[]): Line[] {
  return lines.filter((each) => each.state !== 'arrived');
}

/** The letter to the sender. @param date as it should stand in the letter */
export function requestText(canvas: Canvas, lines: readonly RequestLine[], date: string): string {
  const rows = stillOpen(lines).map((each) => {
    const finish = each.line.finish === 'plain' ? '' : `, ${each.line.finish}`;
    return `- ${each.line.code} (key ${each.line.keyNumber}${finish}): ${whatIsMissing(each)}`;
  });
  return [
    `Date: ${date}`,
    '',
    'Hello,',
    '',
    `my kit “${canvas.title}” (${canvas.width} × ${canvas.height} cells, ${sizeInWords(canvas)}, ${canvas.shape} drills) arrived with drills missing:`,
    '',
    ...rows,
    '',
    'Could you send these to me? Thank you.',
  ].join('\n');
}

function whatIsMissing(each: RequestLine): string {
  const counts = `${many(each.receivedDrills)} received of ${many(each.neededDrills)} needed`;
  const bags =
    each.bagsMissing === 1 ? '1 bag missing' : each.bagsMissing > 1 ? `${each.bagsMissing} bags missing` : '';
  const short = each.shortDrills > 0 ? `short by ${many(each.shortDrills)}` : '';
  return [counts, bags, short].filter((part) => part !== '').join(', ');
}

/** The same as CSV (RFC 4180), one line a colour. */
export function requestCsv(canvas: Canvas, lines: readonly RequestLine[]): string {
  return Papa.unparse({
    fields: [
      'Title',
      'Size',
      'Key number',
      'Symbol',
      'Colour code',
      'Finish',
      'Drills needed',
      'Received',
      'Short',
      'Bags missing',
      'State',
    ],
    data: lines.map((each) => [
      canvas.title,
      sizeInWords(canvas),
      each.line.keyNumber,
      each.line.symbol ?? '',
      each.line.code,
      each.line.finish,
      each.neededDrills,
      each.receivedDrills,
      each.shortDrills,
      each.bagsMissing,
      each.state ?? 'not asked',
    ]),
  });
}
