import type { Shape } from '../canvas/canvas';
import { type LegendLine, symbolOrKey } from '../canvas/legend';
import { placeInWords } from '../codes/places';
import { inkOn } from '../colour/contrast';
import { hexToRgb, UNKNOWN_COLOUR } from '../colour/rgb';
import { type FontMeasure, type Mark, TEXT_MIDDLE } from '../print/drawing';
import { symbolMark } from '../symbols/symbolMark';
import { counted, many } from '../words/numbers';
import { qrPath } from './qr';
import type { LabelFormat } from './sheet';

/** What stands on a label. */
export interface LabelFacts {
  line: LegendLine;
  /** Where the colour lives; null where nothing is planned. */
  place: string | null;
  /** The colour that this one is easily taken for; its lid carries a warning. */
  warnsOf: LegendLine | null;
  /** Address that the QR code opens; null prints none. */
  address: string | null;
  /**
   * Drills in this bag of leftovers; null for a colour that is still to lay. The symbol is that of one canvas alone, so a
   * bag for any canvas bears none.
   */
  leftover: number | null;
}

/** Every text that labels may show, beside what is always at hand. */
export function labelTexts(labels: readonly LabelFacts[]): string[] {
  return labels.flatMap(({ line, place, warnsOf, leftover }) => [
    leftover === null ? symbolOrKey(line) : '',
    line.keyNumber,
    line.code,
    line.name,
    place ?? '',
    warnsOf?.code ?? '',
  ]);
}

const INK = '#17130f';
const FADED = '#5e5446';
const EDGE = '#857a69';
/** Smallest print that is still read: about 5 pt. */
const SMALLEST_MM = 1.8;

/**
 * Draws one label into a box. The symbol is what the eye looks for while laying, so it is largest; the code is what is
 * asked for when drills run out.
 * @returns marks in millimetres from the label's upper left corner
 */
export function labelArt(
  format: LabelFormat,
  facts: LabelFacts,
  box: { widthMm: number; heightMm: number },
  shape: Shape,
  fonts: FontMeasure,
): Mark[] {
  const art = new Art(facts, shape, fonts);
  if (format === 'dots') dot(art, Math.min(box.widthMm, box.heightMm));
  else if (format === 'cards') card(art, box.widthMm, box.heightMm);
  else if (format === 'list') row(art, box.widthMm, box.heightMm);
  else band(art, box.widthMm, box.heightMm);
  return art.marks;
}

/** Marks of one label in the making. */
class Art {
  readonly marks: Mark[] = [];
  constructor(
    readonly facts: LabelFacts,
    private readonly shape: Shape,
    private readonly fonts: FontMeasure,
  ) {}

  get line(): LegendLine {
    return this.facts.line;
  }

  /** A drill of the colour with its symbol, a cut corner for a special finish. `x`, `y` is the upper left corner. */
  chip(x: number, y: number, side: number): void {
    const hex = this.line.hex ?? UNKNOWN_COLOUR;
    const middle = { x: x + side / 2, y: y + side / 2 };
    if (this.shape === 'round')
      this.marks.push({ kind: 'circle', ...middle, radius: side / 2, fill: hex, stroke: EDGE });
    else this.marks.push({ kind: 'rect', x, y, width: side, height: side, fill: hex, stroke: EDGE });
    if (this.line.finish !== 'plain') {
      this.marks.push({
        kind: 'path',
        x: x + side * 0.67,
        y,
        scale: side / 3,
        d: 'M0 0L1 0L1 1Z',
        fill: '#ffffff',
      });
    }
    if (this.facts.leftover === null)
      this.marks.push(symbolMark(this.line, x, y, side, inkOn(hexToRgb(hex)), this.fonts));
  }

  /** A line of text, made smaller until it fits, then cut. `y` is the middle of the line. */
  text(
    text: string,
    x: number,
    y: number,
    width: number,
    size: number,
    style: { anchor?: 'start' | 'middle'; faded?: boolean; code?: boolean } = {},
  ): void {
    // Half a name is worth less than none; what is left out is told before printing.
    if (text === '' || width <= 0 || !this.fonts.canPrint(text)) return;
    const font = style.code ? 'codes' : 'words';
    const natural = this.fonts.widthOf(text, font, size);
    const fitted = Math.max(Math.min(size, SMALLEST_MM), Math.min(size, (size * width) / natural));
    const letters = [...text];
    let shown = text;
    while (letters.length > 1 && this.fonts.widthOf(shown, font, fitted) > width + 1e-6) {
      letters.pop();
      shown = `${letters.join('').trimEnd()}…`;
    }
    this.marks.push({
      kind: 'text',
      x,
      y: y + TEXT_MIDDLE * fitted,
      text: shown,
      font,
      size: fitted,
      fill: style.faded ? FADED : INK,
      anchor: style.anchor ?? 'start',
    });
  }

  /** The QR code of the address with a quiet zone of two modules. */
  qr(x: number, y: number, side: number): void {
    if (this.facts.address === null) return;
    const { size, d } = qrPath(this.facts.address);
    this.marks.push({ kind: 'path', x, y, scale: side / size, d, fill: '#000000' });
  }

  /** A bar and a word at the foot of a lid that is easily taken for another. */
  warning(x: number, y: number, width: number): void {
    const other = this.facts.warnsOf;
    if (!other) return;
    this.marks.push({
      kind: 'line',
      x1: x - width / 2,
      x2: x + width / 2,
      y1: y,
      y2: y,
      stroke: '#000000',
      width: 0.9,
    });
  }

  get hasQr(): boolean {
    return this.facts.address !== null;
  }

  /** `Pot 17 · key 9`, or the key alone; of leftovers how many they are. */
  get home(): string {
    const { place, leftover } = this.facts;
    if (leftover !== null) return `${counted(leftover, 'drill')} left`;
    return place === null
      ? `Key ${this.line.keyNumber}`
      : `${placeInWords(place)} · key ${this.line.keyNumber}`;
  }

  get amount(): string {
    const finish = this.line.finish === 'plain' ? '' : ` · ${this.line.finish}`;
    return `${this.needed}${finish}`;
  }

  /** Drills needed; of leftovers their shape, which tells for what they serve. */
  get needed(): string {
    return this.facts.leftover === null ? counted(this.line.neededDrills, 'drill') : `${this.shape} drills`;
  }

  /** The special finish, or else what is given. */
  finishOr(text: string): string {
    return this.line.finish === 'plain' ? text : this.line.finish;
  }

  /** What the lid warns of, in a few letters. */
  get notThat(): string {
    const other = this.facts.warnsOf;
    return other ? `not ${other.code}` : '';
  }
}

/** Width of a circle at a height from its middle, less a rim. */
function chord(radius: number, fromMiddle: number, rim: number): number {
  return 2 * Math.sqrt(Math.max(0, (radius - rim) ** 2 - fromMiddle ** 2));
}

/** From this diameter on, a lid has room for the name of the colour. */
const ROOMY_LID_MM = 30;

/** A round lid: the symbol above, code and place below. */
function dot(art: Art, diameter: number): void {
  const r = diameter / 2;
  const rim = diameter * 0.05;
  const chip = diameter * (art.hasQr ? 0.4 : 0.46);
  const top = diameter * 0.1;
  if (art.hasQr) {
    art.chip(r - chip - rim * 0.4, top + diameter * 0.03, chip);
    art.qr(r + rim * 0.4, top + diameter * 0.03, chip);
  } else art.chip(r - chip / 2, top, chip);
  const foot = art.notThat || art.needed;
  const small = { faded: art.notThat === '' };
  // A lid of 3 cm has room for the name; below that the cut corner of the chip tells the finish.
  const lines: [string, number, number, { code?: boolean; faded?: boolean }][] =
    diameter < ROOMY_LID_MM
      ? [
          [art.line.code, 0.645, 0.16, { code: true }],
          [art.home, 0.765, 0.095, {}],
          [foot, 0.86, 0.085, small],
        ]
      : [
          [art.line.code, 0.625, 0.13, { code: true }],
          [art.finishOr(art.line.name), 0.722, 0.075, {}],
          [art.home, 0.802, 0.075, {}],
          [foot, 0.876, 0.065, small],
        ];
  for (const [text, at, size, style] of lines) {
    const y = diameter * at;
    // The lower edge of the line is where the circle is narrowest.
    art.text(text, r, y, chord(r, y + diameter * size * 0.4 - r, rim), diameter * size, {
      ...style,
      anchor: 'middle',
    });
  }
  art.warning(r, diameter * 0.925, chord(r, diameter * 0.43, rim) * 0.8);
}

/** A card that stands in a small bag: symbol and QR code above, words below. */
function card(art: Art, width: number, height: number): void {
  const pad = Math.min(width * 0.06, height * 0.07);
  const chip = Math.min(height * 0.48, width * 0.46);
  art.chip(pad, pad, chip);
  if (art.hasQr) art.qr(width - pad - chip * 0.86, pad, chip * 0.86);
  const inner = width - 2 * pad;
  const below = pad + chip;
  const room = height - below - pad * 0.6;
  art.text(art.line.code, pad, below + room * 0.2, inner, room * 0.34, { code: true });
  art.text(art.line.name, pad, below + room * 0.47, inner, room * 0.185);
  art.text(art.home, pad, below + room * 0.68, inner, room * 0.175);
  art.text(art.amount, pad, below + room * 0.88, inner * (art.notThat === '' ? 1 : 0.6), room * 0.165, {
    faded: true,
  });
  art.text(art.notThat, pad + inner * 0.63, below + room * 0.88, inner * 0.37, room * 0.175);
  art.warning(width / 2, height - 0.9, inner);
}

/** A pot label or a strip for a bag: symbol left, words in the middle, QR code right. */
function band(art: Art, width: number, height: number): void {
  const pad = Math.min(1.8, height * 0.1);
  const chip = Math.min(height - 2 * pad, width * 0.5 - pad);
  art.chip(pad, (height - chip) / 2, chip);
  const qr = art.hasQr ? Math.min(chip, width * 0.24) : 0;
  if (qr > 0) art.qr(width - pad - qr, (height - qr) / 2, qr);
  const left = 2 * pad + chip;
  const inner = width - left - pad - (qr > 0 ? qr + pad * 0.6 : 0);
  const wide = inner > height * 2.2;
  if (wide) {
    const half = inner * 0.5;
    art.text(art.line.code, left, height * 0.33, half, height * 0.4, { code: true });
    art.text(art.line.name, left, height * 0.74, half, height * 0.22);
    art.text(art.home, left + half + pad, height * 0.3, half - pad, height * 0.23);
    art.text(art.notThat || art.amount, left + half + pad, height * 0.72, half - pad, height * 0.2, {
      faded: art.notThat === '',
    });
  } else {
    art.text(art.line.code, left, height * 0.21, inner, height * 0.27, { code: true });
    art.text(art.line.name, left, height * 0.45, inner, height * 0.145);
    art.text(art.home, left, height * 0.645, inner, height * 0.145);
    art.text(art.notThat || art.amount, left, height * 0.835, inner, height * 0.13, {
      faded: art.notThat === '',
    });
  }
  art.warning(width / 2, height - 0.8, width - 2 * pad);
}

/** A column of the list page; place and width as shares of the page's. */
interface ListColumn {
  name: string;
  at: number;
  share: number;
  code: boolean;
  words(art: Art): string;
}

/** The drill is at the left, without a name. */
const LIST: readonly ListColumn[] = [
  { name: 'Code', at: 0.08, share: 0.13, code: true, words: ({ line }) => line.code },
  {
    name: 'Key',
    at: 0.22,
    share: 0.06,
    code: true,
    words: ({ facts, line }) => (facts.leftover === null ? line.keyNumber : ''),
  },
  { name: 'Name', at: 0.29, share: 0.27, code: false, words: ({ line }) => line.name },
  { name: 'Finish', at: 0.57, share: 0.11, code: false, words: (art) => art.finishOr('') },
  {
    name: 'Drills',
    at: 0.69,
    share: 0.11,
    code: true,
    words: ({ facts, line }) => many(facts.leftover ?? line.neededDrills),
  },
  {
    name: 'Place',
    at: 0.81,
    share: 0.1,
    code: false,
    words: ({ facts }) => (facts.place === null ? '' : placeInWords(facts.place)),
  },
  { name: 'Not', at: 0.91, share: 0.09, code: false, words: (art) => art.notThat },
];

/** Names of the list's columns with their place as a share of the width. */
export const LIST_COLUMNS: readonly Pick<ListColumn, 'name' | 'at'>[] = LIST;

/** A row of the list page. */
function row(art: Art, width: number, height: number): void {
  const y = height / 2;
  const size = height * 0.38;
  const chip = Math.min(height * 0.88, width * 0.07);
  art.chip(0, (height - chip) / 2, chip);
  for (const { at, share, code, words } of LIST)
    art.text(words(art), width * at, y, width * share, size, { code });
  art.marks.push({ kind: 'line', x1: 0, x2: width, y1: height, y2: height, stroke: EDGE, width: 0.1 });
}
