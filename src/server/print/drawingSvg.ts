import subsetFont from 'subset-font';
import { type Drawing, type Mark, OUTLINE_MM } from '../../core/print/drawing';
import { escapedXml } from '../../core/words/xml';
import { type Typeset, typesetFor } from './typeset';

/** A drawing as an SVG file: sizes in millimetres, its fonts embedded with just the glyphs that it uses. */
export async function drawingSvg(drawing: Drawing): Promise<string> {
  const texts = drawing.marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []));
  const typeset = await typesetFor(texts);
  const faces = await embeddedFaces(drawing.marks, typeset);
  const { widthMm, heightMm } = drawing;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm}mm" viewBox="0 0 ${widthMm} ${heightMm}">`,
    `<style>${faces}</style>`,
    `<rect width="${widthMm}" height="${heightMm}" fill="#ffffff"/>`,
    ...drawing.marks.map((mark) => element(mark, typeset)),
    '</svg>',
  ].join('\n');
}

async function embeddedFaces(marks: readonly Mark[], typeset: Typeset): Promise<string> {
  const used = new Map<string, string>();
  for (const mark of marks) {
    if (mark.kind !== 'text') continue;
    for (const { font, text } of typeset.runsOf(mark.text, mark.font)) {
      used.set(font, (used.get(font) ?? '') + text);
    }
  }
  const faces = await Promise.all(
    [...used].map(async ([name, text]) => {
      const bytes = await subsetFont(typeset.fonts.get(name)!.bytes, text, { targetFormat: 'woff2' });
      return `@font-face{font-family:"${name}";src:url(data:font/woff2;base64,${bytes.toString('base64')}) format("woff2")}`;
    }),
  );
  return faces.join('');
}

function element(mark: Mark, typeset: Typeset): string {
  switch (mark.kind) {
    case 'rect':
      return `<rect x="${n(mark.x)}" y="${n(mark.y)}" width="${n(mark.width)}" height="${n(mark.height)}"${paint(mark)}/>`;
    case 'circle':
      return `<circle cx="${n(mark.x)}" cy="${n(mark.y)}" r="${n(mark.radius)}"${paint(mark)}/>`;
    case 'line':
      return `<path d="M${n(mark.x1)} ${n(mark.y1)}L${n(mark.x2)} ${n(mark.y2)}" stroke="${mark.stroke}" stroke-width="${mark.width}"/>`;
    case 'path':
      return `<path transform="translate(${n(mark.x)} ${n(mark.y)}) scale(${mark.scale.toFixed(6)})" d="${mark.d}" fill="${mark.fill}" fill-rule="evenodd"/>`;
    case 'text':
      return `<text x="${n(mark.x)}" y="${n(mark.y)}" font-family="${familiesOf(mark, typeset)}" font-size="${n(mark.size)}" fill="${mark.fill}"${mark.anchor === 'middle' ? ' text-anchor="middle"' : ''}>${escapedXml(mark.text)}</text>`;
  }
}

/** The browser orders and shapes a line by itself; it only has to know where its letters are. */
function familiesOf({ text, font }: Mark & { kind: 'text' }, typeset: Typeset): string {
  const names = new Set(typeset.runsOf(text, font).map((run) => run.font));
  return [...names].map((name) => `'${name}'`).join(',');
}

function paint({ fill, stroke }: { fill?: string; stroke?: string }): string {
  const outline = stroke === undefined ? '' : ` stroke="${stroke}" stroke-width="${OUTLINE_MM}"`;
  return ` fill="${fill ?? 'none'}"${outline}`;
}

/** To the thousandth of a millimetre, which no printer reaches. */
function n(mm: number): string {
  return String(Math.round(mm * 1000) / 1000);
}
