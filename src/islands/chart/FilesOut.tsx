import { useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import { pageRects } from '../../core/chart/files/chartPages';
import type { PaperName } from '../../core/print/paper';
import { counted } from '../../core/words/numbers';
import { Download, FolderOutput, Printer } from '../../ui/icons';
import { Unprintable } from '../labels/Unprintable';
import { DownloadButton } from '../writing/DownloadButton';

const FILES = [
  ['chart.png', 'Picture, one pixel for each square (PNG)'],
  ['chart.csv', 'Grid of colour codes (CSV)'],
  ['chart.json', 'Chart with its colour list (JSON)'],
  ['chart.svg', 'Drawing with symbols, true to size (SVG)'],
] as const;

/** Takes the chart, or the whole canvas, out of Oculent. */
export function FilesOut({ canvas, hasChart }: { canvas: Canvas; hasChart: boolean }) {
  const base = `/api/canvases/${canvas.id}`;
  return (
    <section className="flex flex-col gap-3" aria-label="Take it out">
      <h2 className="text-xl">Take it out</h2>
      {hasChart && (
        <ul>
          {FILES.map(([file, words]) => (
            <li key={file}>
              <a
                className="inline-flex min-h-11 items-center gap-2 underline"
                href={`${base}/${file}`}
                download={`${canvas.title} ${file}`}
              >
                <Download size={18} aria-hidden /> {words}
              </a>
            </li>
          ))}
        </ul>
      )}
      <DownloadButton
        url={`${base}/archive.zip`}
        making="Packing the canvas"
        words={
          <>
            <FolderOutput size={18} aria-hidden /> The whole canvas (ZIP)
          </>
        }
      />
      <p className="text-faded">
        With colour list, chart, bags and every mark: to keep a copy, to move it to another machine, or to
        open its tables in another program.
      </p>
      {hasChart && <PrintSlip canvas={canvas} />}
    </section>
  );
}

/** The chart on paper, for working away from a screen. */
function PrintSlip({ canvas }: { canvas: Canvas }) {
  const [paper, setPaper] = useState<PaperName>('a4');
  const [ink, setInk] = useState('colour');
  const [cellMm, setCellMm] = useState(3.5);
  const { rects } = pageRects({
    paper,
    cellMm,
    area: { x: 0, y: 0, width: canvas.width, height: canvas.height },
  });
  return (
    <div className="slip flex flex-col gap-3">
      <h3 className="text-lg">On paper</h3>
      <Unprintable canvasId={canvas.id} />
      <div className="flex flex-wrap gap-3">
        <label>
          <span className="block">Paper</span>
          <select
            className="field"
            value={paper}
            onChange={(event) => setPaper(event.target.value as PaperName)}
          >
            <option value="a4">A4</option>
            <option value="letter">US Letter</option>
          </select>
        </label>
        <label>
          <span className="block">Squares</span>
          <select
            className="field"
            value={cellMm}
            onChange={(event) => setCellMm(Number(event.target.value))}
          >
            {[2.5, 3, 3.5, 4, 5, 6].map((mm) => (
              <option key={mm} value={mm}>
                {mm} mm{mm === canvas.pitchMm ? ', true to size' : ''}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="block">Ink</span>
          <select className="field" value={ink} onChange={(event) => setInk(event.target.value)}>
            <option value="colour">Colours and symbols</option>
            <option value="black">Symbols alone</option>
          </select>
        </label>
      </div>
      <p>
        <span className="number font-semibold">{counted(rects.length, 'page')}</span> of chart, then the
        colour list. Print at 100 %.
      </p>
      <DownloadButton
        url={`/api/canvases/${canvas.id}/chart.pdf?paper=${paper}&cellMm=${cellMm}&ink=${ink}`}
        making="Pages drawn"
        words={
          <>
            <Printer size={18} aria-hidden /> Chart to print (PDF)
          </>
        }
      />
    </div>
  );
}
