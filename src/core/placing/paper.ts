import { type LegendLine, ofLine, symbolOrKey } from '../canvas/legend';
import type { CellPart } from '../cells/rect';
import { hexToRgb, mix, rgbToHex } from '../colour/rgb';
import { type Drawing, type Mark, TEXT_MIDDLE } from '../print/drawing';
import {
  headed,
  INK,
  inLines,
  LINE_MM,
  linePages,
  MARGIN_MM,
  numbered,
  PALE,
  type PaperHead,
  TEXT_MM,
  text,
} from '../print/page';
import { PAPERS } from '../print/paper';
import { counted, many } from '../words/numbers';
import { boundInWords, countsByTip, readOut } from './inWords';
import { type Placement, placementRect } from './placement';
import type { PlacingPlan } from './plan';

/** Under so many millimetres nobody reads a number in a square. */
const READABLE_MM = 2;
/** Share of a colour in the tint of its bars. */
const TINT = 0.4;

/**
 * The plan of a section on paper: its bars with the drills of each, colour after colour as a list to read along.
 * @param what names the section
 */
export function placingSheet(
  head: PaperHead,
  what: string,
  section: CellPart,
  plan: PlacingPlan,
  legend: readonly LegendLine[],
): Drawing[] {
  const page = headed(head, what);
  const { widthMm, heightMm } = PAPERS[head.paper];
  const tips = inLines(
    head,
    countsByTip(plan.placements)
      .map(
        ({ tip, placements }) =>
          `${many(placements)} with ${tip === 1 ? 'the single placer' : `the ${tip}-tip`}`,
      )
      .join(', '),
    TEXT_MM,
  );
  const top = MARGIN_MM + 24 + tips.length * LINE_MM;
  const mm = Math.min(
    (widthMm - 2 * MARGIN_MM) / section.width,
    (heightMm - top - MARGIN_MM - 6) / section.height,
    6,
  );
  const left = (widthMm - mm * section.width) / 2;
  page.marks.push(
    text(
      MARGIN_MM,
      MARGIN_MM + 18,
      plan.placements.length === 0
        ? 'Everything in this section is laid.'
        : `${counted(plan.placements.length, 'placement')} for ${counted(plan.drills, 'drill')}. ${boundInWords(plan)}`,
      TEXT_MM,
    ),
    ...tips.map((words, i) => text(MARGIN_MM, MARGIN_MM + 24 + i * LINE_MM, words, TEXT_MM, { fill: PALE })),
    ...plan.placements.flatMap((placement) => barMarks(placement, section, legend, { left, top, mm })),
  );
  const pages = [page];
  const lines: string[] = [];
  for (const { line, drills, placements } of plan.colours[0] ?? []) {
    const { along, down } = readOut(plan.placements.filter((each) => each.line === line));
    lines.push(
      `${ofLine(legend, line)?.code ?? line}: ${counted(drills, 'drill')}, ${counted(placements, 'placement')}`,
    );
    for (const { number, words } of along) lines.push(`    Row ${number}, ${words}`);
    for (const { number, words } of down) lines.push(`    Column ${number}, ${words}`);
  }
  return numbered([...pages, ...linePages(head, `${what}, bar by bar`, lines)]);
}

function barMarks(
  placement: Placement,
  section: CellPart,
  legend: readonly LegendLine[],
  { left, top, mm }: { left: number; top: number; mm: number },
): Mark[] {
  const { x, y, width, height } = placementRect(placement);
  const colour = ofLine(legend, placement.line);
  const at = { x: left + (x - section.x) * mm, y: top + (y - section.y) * mm };
  const inset = mm * 0.06;
  const marks: Mark[] = [
    {
      kind: 'rect',
      x: at.x + inset,
      y: at.y + inset,
      width: width * mm - 2 * inset,
      height: height * mm - 2 * inset,
      stroke: INK,
      // Pale, so that the number stands out on every colour.
      ...(colour?.hex ? { fill: rgbToHex(mix([255, 255, 255], hexToRgb(colour.hex), TINT)) } : {}),
    },
  ];
  if (mm >= READABLE_MM && colour) {
    const word = placement.length > 1 ? String(placement.length) : symbolOrKey(colour);
    const size = Math.min(mm * 0.62, 3);
    marks.push(
      text(at.x + (width * mm) / 2, at.y + (height * mm) / 2 + size * TEXT_MIDDLE, word, size, {
        anchor: 'middle',
        font: 'codes',
      }),
    );
  }
  return marks;
}
