import { LOG_PHOTOS, type LogFacts, logRows } from '../../core/finish/logPage';
import { MARGIN_MM } from '../../core/print/page';
import { mmToPoints, PAPERS, type PaperName } from '../../core/print/paper';
import { clothPng } from '../chart/chartFiles';
import { newPdf, setText, writtenPdf } from '../print/pdf';
import { typesetFor } from '../print/typeset';

const INK = '#17130f';
const PALE = '#5e5446';

/** What the log page is made from; it goes to another thread. */
export interface LogPrint {
  facts: LogFacts;
  /** Null where there is no chart to draw. */
  picture: Parameters<typeof clothPng>[0] | null;
  photos: Uint8Array[];
  paper: PaperName;
}

/** The log page: title, picture, facts, notes and photos. */
export async function logPdf({ facts, picture, photos, paper }: LogPrint): Promise<Uint8Array> {
  const rows = logRows(facts);
  const notes = wrapped(facts.notes, 92);
  const fonts = await typesetFor([
    facts.title,
    ...rows.flatMap(({ name, value }) => [name, value]),
    ...notes,
  ]);
  const document = newPdf(paper, `Log: ${facts.title}`, fonts);
  const { widthMm, heightMm } = PAPERS[paper];
  const mm = mmToPoints;
  document.addPage({ size: [mm(widthMm), mm(heightMm)], margin: 0 });
  const line = (words: string, x: number, y: number, size: number, fill = INK) =>
    setText(document, fonts, {
      text: words,
      font: 'words',
      x: mm(x),
      y: mm(y),
      size: mm(size),
      fill,
      anchor: 'start',
    });
  line(facts.title, MARGIN_MM, MARGIN_MM + 8, 8);
  const room = { width: widthMm - 2 * MARGIN_MM, height: heightMm * 0.42 };
  const scale = Math.min(room.width / facts.width, room.height / facts.height);
  const [width, height] = [facts.width * scale, facts.height * scale];
  if (picture) {
    document.image(Buffer.from(await clothPng(picture)), mm((widthMm - width) / 2), mm(MARGIN_MM + 14), {
      width: mm(width),
      height: mm(height),
    });
  }
  let y = MARGIN_MM + 14 + (picture ? height + 10 : 6);
  for (const { name, value } of rows) {
    line(name, MARGIN_MM, y, 4, PALE);
    line(value, MARGIN_MM + 38, y, 4);
    y += 6.6;
  }
  y += 3;
  for (const words of notes.slice(0, Math.max(0, Math.floor((heightMm - y - 60) / 5)))) {
    line(words, MARGIN_MM, y, 3.8);
    y += 5;
  }
  const side = (room.width - (LOG_PHOTOS - 1) * 4) / LOG_PHOTOS;
  photos.forEach((photo, i) => {
    document.image(Buffer.from(photo), mm(MARGIN_MM + i * (side + 4)), mm(y + 2), {
      fit: [mm(side), mm(Math.min(side, heightMm - y - MARGIN_MM))],
    });
  });
  return writtenPdf(document);
}

/** Text in lines of so many letters, broken between words. */
function wrapped(text: string, letters: number): string[] {
  return text.split('\n').flatMap((paragraph) => {
    const lines: string[] = [];
    for (const word of paragraph.split(' ')) {
      const last = lines.at(-1);
      if (last !== undefined && last.length + 1 + word.length <= letters)
        lines[lines.length - 1] = `${last} ${word}`;
      else lines.push(word);
    }
    return lines;
  });
}
