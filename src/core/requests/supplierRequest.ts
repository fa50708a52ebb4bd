import Papa from 'papaparse';
import { type Canvas, sizeInWords } from '../canvas/canvas';
import type { LegendLine } from '../canvas/legend';
import { ofLine } from '../canvas/legend';
import { chanceOfRunningOut, type TrashTally } from '../checkin/chance';
import { FILLING_START } from '../checkin/filling';
import type { LineSupply } from '../checkin/supply';
import { TIGHT_FROM } from '../checkin/supply';
import { compareCodes } from '../codes/codes';
import { GUARDED } from '../words/csvGuard';
import { many } from '../words/numbers';

/** How far a request for a colour has come. */
export const REQUEST_STATES = ['asked', 'promised', 'arrived'] as const;
export type RequestState = (typeof REQUEST_STATES)[number];

/** One colour to ask the seller for. */
export interface RequestLine {
  line: LegendLine;
  neededDrills: number;
  /** What the seller has sent so far; drills from the stash or a shop are not the seller's. */
  receivedDrills: number;
  /** Drills to ask for, so that running out becomes unlikely; 0 where enough was sent. */
  shortDrills: number;
  /** Bags that the sheet lists and that did not come, where their drills are wanting. */
  bagsMissing: number;
  /** Drills that are wanting with all that is here, from wherever it came; 0 where it lasts. */
  lackingDrills: number;
  /** Whether it ran out at the bench, so that the number is known and not reckoned. */
  ranOut: boolean;
  /** Null while nobody has asked. */
  state: RequestState | null;
}

/**
 * Colours for which the seller has not sent enough, in code order: judged by drills, with the bad ones among them and
 * the chance of running out. A colour that was asked for and lacks nothing any more is shown once as arrived. A finish
 * of the user's own choice was never the seller's to send: it is on the list where it is wanting, with nothing to ask.
 * @param trash as `learnedTrash` gives it
 * @param wanting drills by line that are known to be wanting because the colour ran out at the bench
 */
export function requestLines(
  legend: readonly LegendLine[],
  supply: readonly LineSupply[],
  states: ReadonlyMap<number, RequestState>,
  trash: TrashTally,
  wanting: ReadonlyMap<number, number> = new Map(),
): RequestLine[] {
  const chanceOf = chanceOfRunningOut(trash);
  return legend
    .map((line): RequestLine => {
      const own = ofLine(supply, line.line)!;
      const known = wanting.get(line.line) ?? 0;
      const shortDrills =
        line.origin === 'own' ? 0 : Math.max(known, drillsToAsk(own.neededDrills, own.fromSeller, chanceOf));
      const bagsMissing = shortDrills > 0 ? own.bagsToFind : 0;
      const asked = states.get(line.line) ?? null;
      return {
        line,
        neededDrills: own.neededDrills,
        receivedDrills: own.fromSeller.drills,
        shortDrills,
        bagsMissing,
        lackingDrills: Math.max(
          known,
          drillsToAsk(own.neededDrills, { drills: own.suppliedDrills, spread: own.spread }, chanceOf),
        ),
        ranOut: known > 0,
        // A bag that has come clears the request by itself.
        state: asked !== null && shortDrills === 0 ? 'arrived' : asked,
      };
    })
    .filter((each) => each.shortDrills > 0 || each.lackingDrills > 0 || each.state !== null)
    .sort((a, b) => compareCodes(a.line.code, b.line.code));
}

/**
 * The fewest drills that have to come so that a colour runs out with a chance below 5 %; 0 where enough are here.
 * @param here drills with their standard deviation
 * @param chanceOf as `chanceOfRunningOut` gives it
 */
function drillsToAsk(
  neededDrills: number,
  here: { drills: number; spread: number },
  chanceOf: (neededDrills: number, here: { drills: number; spread: number }) => number,
): number {
  const enough = (more: number) =>
    chanceOf(neededDrills, {
      drills: here.drills + more,
      spread: Math.hypot(here.spread, FILLING_START.spread * more),
    }) < TIGHT_FROM;
  if (enough(0)) return 0;
  let [low, high] = [0, Math.max(1, neededDrills)];
  while (!enough(high)) high *= 2;
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (enough(middle)) high = middle;
    else low = middle;
  }
  return high;
}

/** Those of the lines that the seller still owes. */
export function toAsk<Line extends RequestLine>(lines: readonly Line[]): Line[] {
  return lines.filter((each) => each.shortDrills > 0 && each.state !== 'arrived');
}

/** Those of the lines that are still wanting: owed by the seller and not covered otherwise, or to be got elsewhere. */
export function stillWanting<Line extends RequestLine>(lines: readonly Line[]): Line[] {
  return lines.filter((each) => each.lackingDrills > 0);
}

/** The letter to the seller. @param date as it should stand in the letter */
export function requestText(canvas: Canvas, lines: readonly RequestLine[], date: string): string {
  const rows = toAsk(lines).map((each) => {
    const finish = each.line.finish === 'plain' ? '' : `, ${each.line.finish}`;
    return `- ${each.line.code} (key ${each.line.keyNumber}${finish}): ${whatIsMissing(each)}`;
  });
  return [
    `Date: ${date}`,
    '',
    'Hello,',
    '',
    `my kit “${canvas.title}” (${canvas.width} × ${canvas.height} squares, ${sizeInWords(canvas)}, ${canvas.shape} drills) arrived with too few drills of these colours:`,
    '',
    ...rows,
    '',
    'Could you send these to me? Thank you.',
  ].join('\n');
}

function whatIsMissing(each: RequestLine): string {
  const tight =
    each.receivedDrills >= each.neededDrills && !each.ranOut ? ', too few to allow for bad drills' : '';
  const counts = `${many(each.receivedDrills)} received of ${many(each.neededDrills)} needed${tight}`;
  const bags =
    each.bagsMissing === 1 ? '1 bag missing' : each.bagsMissing > 1 ? `${each.bagsMissing} bags missing` : '';
  const ask = `${each.ranOut ? 'it ran out while I was laying it, ' : ''}please send at least ${many(each.shortDrills)}`;
  return [counts, bags, ask].filter((part) => part !== '').join(', ');
}

/** The same as CSV (RFC 4180), one line a colour. */
export function requestCsv(canvas: Canvas, lines: readonly RequestLine[]): string {
  return Papa.unparse(
    {
      fields: [
        'Title',
        'Size',
        'Key number',
        'Symbol',
        'Colour code',
        'Finish',
        'Drills needed',
        'Received',
        'To send',
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
    },
    GUARDED,
  );
}
