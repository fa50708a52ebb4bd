import { LOG_PHOTOS, type LogFacts, logRows } from '../../core/finish/logPage';
import { MARGIN_MM } from '../../core/print/page';
import { mmToPoints, PAPERS, type PaperName } from '../../core/print/paper';
import { wrapped } from '../../core/print/wrapped';
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

/** Height that photos of the work have on the first page. */
const PHOTOS_MM = 44;
const TITLE = { size: 8, step: 9 };
const NOTE = { size: 3.8, step: 5 };

/** The log page: title, picture, facts, notes and photos; notes that have no room there go on on pages of their own. */
export async function logPdf({ facts, picture, photos, paper }: LogPrint): Promise<Uint8Array> {
  const rows = logRows(facts);
  const fonts = await typesetFor([
    facts.title,
    ...rows.flatMap(({ name, value }) => [name, value]),
    ...facts.notes.split('\n'),
  ]);
  const document = newPdf(paper, `Log: ${facts.title}`, fonts);
  const { widthMm, heightMm } = PAPERS[paper];
  const mm = mmToPoints;
  // A smaller picture leaves room for a few lines.
  const share = facts.notes === '' ? 0.42 : 0.36;
  const room = { width: widthMm - 2 * MARGIN_MM, height: heightMm * share };
  const addPage = () => document.addPage({ size: [mm(widthMm), mm(heightMm)], margin: 0 });
  addPage();
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
  const measuredLines = (text: string, size: number) =>
    wrapped(text, (words) => fonts.widthOf(words, 'words', size) <= room.width);
  let y = MARGIN_MM + TITLE.size;
  for (const words of measuredLines(facts.title, TITLE.size)) {
    line(words, MARGIN_MM, y, TITLE.size);
    y += TITLE.step;
  }
  y -= TITLE.step - 6;
  if (picture) {
    const scale = Math.min(room.width / facts.width, room.height / facts.height);
    const [width, height] = [facts.width * scale, facts.height * scale];
    document.image(Buffer.from(await clothPng(picture)), mm((widthMm - width) / 2), mm(y), {
      width: mm(width),
      height: mm(height),
    });
    y += height + 4;
  }
  y += 6;
  for (const { name, value } of rows) {
    line(name, MARGIN_MM, y, 4, PALE);
    line(value, MARGIN_MM + 38, y, 4);
    y += 6.6;
  }
  y += 3;
  const notes = facts.notes === '' ? [] : measuredLines(facts.notes, NOTE.size);
  const bottom = heightMm - MARGIN_MM;
  const most = Math.floor((bottom - (photos.length > 0 ? PHOTOS_MM : 0) - y) / NOTE.step);
  const here = notes.slice(0, Math.max(0, most));
  for (const words of here) {
    line(words, MARGIN_MM, y, NOTE.size);
    y += NOTE.step;
  }
  const side = (room.width - (LOG_PHOTOS - 1) * 4) / LOG_PHOTOS;
  photos.forEach((photo, i) => {
    document.image(Buffer.from(photo), mm(MARGIN_MM + i * (side + 4)), mm(y + 2), {
      fit: [mm(side), mm(Math.min(side, bottom - y))],
    });
  });
  const perPage = Math.floor((bottom - MARGIN_MM) / NOTE.step);
  for (let from = here.length; from < notes.length; from += perPage) {
    addPage();
    notes.slice(from, from + perPage).forEach((words, i) => {
      line(words, MARGIN_MM, MARGIN_MM + (i + 1) * NOTE.step, NOTE.size);
    });
  }
  return writtenPdf(document);
}
