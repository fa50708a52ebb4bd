import { Printer } from 'lucide-react';
import { useMemo } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { PAPERS, type PaperName } from '../../core/kitup/labelSheet';
import { potsInCodeOrder } from '../../core/kitup/pots';
import { counted, many } from '../../core/words/numbers';
import type { ShelfEntry } from '../../server/contract/canvases';
import { Chip } from '../../ui/Chip';
import { Notice } from '../../ui/Notice';

/** The pots in code order, as they stand in the case, and the labels for them. */
export function KitupStation({ entry, legend }: { entry: ShelfEntry; legend: LegendLine[] }) {
  const { canvas } = entry;
  const pots = useMemo(() => potsInCodeOrder(legend), [legend]);
  if (pots.length === 0) {
    return (
      <p className="slip max-w-xl text-lg">
        Pots are numbered from the sheet.{' '}
        <a className="underline" href={`/canvas/${canvas.id}/checkin/sheet`}>
          Read the inventory sheet
        </a>{' '}
        first.
      </p>
    );
  }
  return (
    <div className="grid items-start gap-6 lg:grid-cols-[20rem_1fr]">
      <section className="flex flex-col gap-3 lg:sticky lg:top-4">
        <p className="big-number">{counted(pots.length, 'pot')}</p>
        <p>In the order of the codes, so that a bag in hand finds its pot by its number.</p>
        <h2 className="mt-2">Labels</h2>
        {(Object.keys(PAPERS) as PaperName[]).map((paper) => (
          <a
            key={paper}
            className={`button ${paper === 'a4' ? 'button-main' : ''}`}
            href={`/api/canvases/${canvas.id}/labels.pdf?paper=${paper}`}
            download
          >
            <Printer size={20} aria-hidden /> Labels on {PAPERS[paper].name} (PDF)
          </a>
        ))}
        <p className="text-faded">
          Print at 100 %, not “fit to page”; then a label measures 45 × 22 mm. The symbol is what you look for
          while laying, the code is what you ask for when drills run out, so both stand on it.
        </p>
        <Notice kind="hint">
          To take old labels off, try warm water first. Acetone and rubbing alcohol eat or cloud glossy
          plastic: test on a hidden spot, air the room and follow the product’s label.
        </Notice>
      </section>
      <section aria-label="The case">
        <ol className="grid gap-x-1 gap-y-3 border-[10px] border-edge bg-cloth p-4 [grid-template-columns:repeat(auto-fill,minmax(6.1rem,1fr))]">
          {pots.map(({ pot, line }) => (
            <li key={pot} className="flex flex-col items-center text-center">
              <span className="relative flex size-[5.4rem] items-center justify-center rounded-full border-[3px] border-edge bg-paper shadow-inner">
                <Chip line={line} shape={canvas.shape} size={52} />
                <span className="number absolute -top-0.5 -left-1 min-w-7 rounded-full bg-ink px-1.5 text-[0.95rem] font-semibold text-paper">
                  <span className="sr-only">Pot </span>
                  {pot}
                </span>
              </span>
              <span className="number mt-1 text-lg leading-tight font-semibold">{line.code}</span>
              <span className="text-[0.95rem] leading-tight text-faded">
                {many(line.neededDrills)} drills
                {line.finish !== 'plain' && (
                  <>
                    <br />
                    {line.finish}
                  </>
                )}
              </span>
            </li>
          ))}
        </ol>
      </section>
    </div>
  );
}
