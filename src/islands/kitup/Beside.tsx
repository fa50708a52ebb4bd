import type { Shape } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import { many } from '../../core/words/numbers';
import type { KitupView } from '../../server/kitup/contract';
import { Colour } from '../../ui/Chip';
import { TermWord } from '../../ui/TermWord';

/** What stands beside the case: colours that stay in their bags and why, overflow bags, and when pots run empty. */
export function Beside({ view, legend, shape }: { view: KitupView; legend: LegendLine[]; shape: Shape }) {
  const whole = view.bags.filter((bag) => bag.whole);
  const overflow = view.bags.filter((bag) => !bag.whole);
  const rows = (bags: typeof view.bags) => (
    <ul className="grid gap-x-6 [grid-template-columns:repeat(auto-fill,minmax(min(21rem,100%),1fr))]">
      {bags.map((bag) => (
        <li key={bag.bag} className="flex items-center gap-3 border-b border-line py-1.5">
          <span className="number min-w-16 font-semibold">Bag {bag.bag}</span>
          <Colour line={ofLine(legend, bag.line)!} shape={shape} />
          <span className="ml-auto text-right">{bag.reason ?? `${many(bag.drills)} over`}</span>
        </li>
      ))}
    </ul>
  );
  return (
    <>
      {whole.length > 0 && (
        <section className="bg-paper p-4" aria-label="In bags">
          <h2 className="mb-1">These stay in their bags</h2>
          {rows(whole)}
        </section>
      )}
      {overflow.length > 0 && (
        <section className="bg-paper p-4" aria-label="Overflow bags">
          <h2 className="mb-1">
            <TermWord term="overflow bag">Overflow bags</TermWord>
          </h2>
          {rows(overflow)}
        </section>
      )}
      {view.refills.length > 0 && (
        <section className="bg-paper p-4" aria-label="Refills">
          <h2 className="mb-1">When pots run empty</h2>
          <p className="mb-2 text-faded">
            If the sections are laid in order, and bad drills go on as before.
          </p>
          <ol className="list-decimal pl-8">
            {view.refills.map((refill) => (
              <li key={refill} className="py-1">
                {refill}
              </li>
            ))}
          </ol>
        </section>
      )}
    </>
  );
}
