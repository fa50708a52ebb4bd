import { useState } from 'react';
import type { PackedLine, PackingGoal } from '../../core/packing/packing';
import { packingSum } from '../../core/packing/packing';
import { counted, many } from '../../core/words/numbers';
import type { ShelfEntry } from '../../server/shelf/contract';
import { AS_TYPED } from '../../ui/asTyped';
import { Colour } from '../../ui/Chip';
import { Download, Printer } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { ScrollRegion } from '../../ui/ScrollRegion';
import { CheckinNav } from '../checkin/CheckinNav';
import { useAnswer } from '../writing/useAnswer';

/** The sender's side: which bags go into a kit, in the order in which a hand picks them. */
export function PackingPage({ entry }: { entry: ShelfEntry }) {
  const { canvas } = entry;
  const [wish, setWish] = useState<{ sizes: string; spare: string; goal: PackingGoal }>({
    sizes: '200, 1000',
    spare: '10',
    goal: 'least surplus',
  });
  const query = new URLSearchParams(wish).toString();
  const {
    answer: list,
    isOld,
    fault,
  } = useAnswer<PackedLine[]>(`/api/canvases/${canvas.id}/packing?${query}`, ['bags', 'pots', 'sheet']);
  const sum = packingSum(list ?? []);
  return (
    <>
      <div className="print:hidden">
        <CheckinNav canvasId={canvas.id} here="/packing" />
      </div>
      <div className="grid items-start gap-6 lg:grid-cols-[20rem_1fr]">
        <section className="flex flex-col gap-3 print:hidden">
          <p>For those who pack kits: which bags to put in, from the sizes in stock.</p>
          <label className="block">
            <span className="mb-1.5 block font-semibold">Sizes in stock, in drills</span>
            <input
              className="field number"
              {...AS_TYPED}
              value={wish.sizes}
              onChange={(event) => setWish({ ...wish, sizes: event.target.value })}
            />
          </label>
          <label className="block">
            <span className="mb-1.5 block font-semibold">Spare drills, in percent</span>
            <input
              className="field number"
              inputMode="decimal"
              value={wish.spare}
              onChange={(event) => setWish({ ...wish, spare: event.target.value })}
            />
          </label>
          <fieldset>
            <legend className="mb-1 font-semibold">Rather</legend>
            {(['least surplus', 'fewest bags'] as const).map((goal) => (
              <label key={goal} className="flex min-h-11 items-center gap-2">
                <input
                  type="radio"
                  name="goal"
                  className="size-5 accent-accent"
                  checked={wish.goal === goal}
                  onChange={() => setWish({ ...wish, goal })}
                />
                the {goal}
              </label>
            ))}
          </fieldset>
          <div className="flex gap-2">
            <button
              type="button"
              className="button button-main"
              disabled={isOld || !list || fault !== null}
              onClick={() => window.print()}
            >
              <Printer size={20} aria-hidden /> Print
            </button>
            <a className="button" href={`/api/canvases/${canvas.id}/packing.csv?${query}`}>
              <Download size={20} aria-hidden /> CSV
            </a>
          </div>
        </section>
        <section className={`min-w-0 ${isOld ? 'opacity-60 print:hidden' : ''}`} aria-busy={isOld}>
          {fault && <Notice kind="fault">{fault}</Notice>}
          {list && !fault && (
            <>
              <h2 className="hidden text-xl print:block">Packing list: {canvas.title}</h2>
              <p className="big-number">{counted(sum.bags, 'bag')}</p>
              <p className="mb-3">
                {counted(sum.packedDrills, 'drill')} for {many(sum.neededDrills)} needed, in pick order by
                code
              </p>
              <ScrollRegion label="Packing list" className="">
                <table className="table-plain">
                  <thead>
                    <tr>
                      <th className="!py-2">Colour</th>
                      <th className="!text-right">Needed</th>
                      <th className="!text-right">With spare</th>
                      <th>Pick</th>
                      <th className="!text-right">Packed</th>
                    </tr>
                  </thead>
                  <tbody>
                    {list.map((each) => (
                      <tr key={each.line.line}>
                        <td>
                          <Colour line={each.line} shape={canvas.shape} size={32} />
                        </td>
                        <td className="number text-right">{many(each.line.neededDrills)}</td>
                        <td className="number text-right">{many(each.wantedDrills)}</td>
                        <td className="number font-semibold">
                          {each.bags.map((bag) => `${bag.count} × ${many(bag.size)}`).join(' + ') || 'none'}
                        </td>
                        <td className="number text-right">{many(each.packedDrills)}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </ScrollRegion>
            </>
          )}
        </section>
      </div>
    </>
  );
}
