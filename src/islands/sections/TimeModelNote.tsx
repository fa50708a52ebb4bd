import { EFFORTS, type EffortKind } from '../../core/pace/effort';
import { counted, many } from '../../core/words/numbers';
import type { TimeModelView } from '../../server/sections/contract';

const WORDS: Record<EffortKind, string> = {
  colours: 'Opening a colour',
  singles: 'A drill by itself',
  shortBars: 'A bar of 2 to 5',
  longBars: 'A bar of 6 or more',
  turns: 'Turning between rows and columns',
  confetti: 'Hunting for a confetti square',
};

/** Where the minutes come from: how long this hand takes, how sure that is, and how well it has foretold. */
export function TimeModelNote({
  view,
  pace,
}: {
  view: TimeModelView | null;
  pace: { maker: string | null; choose: (maker: string | null) => void };
}) {
  if (!view) return <p className="text-faded">Minutes are by usual times: your own could not be read.</p>;
  return (
    <details data-testid="time-model">
      <summary className="min-h-11 cursor-pointer font-semibold">Where the minutes come from</summary>
      {view.makers.length > 0 && (
        <label className="my-1 flex flex-wrap items-center gap-x-3 gap-y-1">
          <span>By the pace of</span>
          <select
            className="field !w-auto"
            value={pace.maker ?? ''}
            onChange={(event) => pace.choose(event.target.value || null)}
          >
            <option value="">everybody</option>
            {view.makers.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
      <p>
        {view.sittings === 0
          ? 'From usual times. They become yours with the sittings that you time at the bench.'
          : `From your last ${counted(view.sittings, 'sitting')}; a single one strays by about ${Math.round(view.spread * 100)} %.`}
        {view.foretold.length > 0 &&
          view.meanError !== null &&
          ` Of the last ${many(view.foretold.length)}, ${many(view.inBand)} lay in the band that was foretold, off by ${Math.round(view.meanError * 100)} % on average.`}
      </p>
      <table className="mt-1 w-full text-[0.98rem]">
        <thead>
          <tr className="text-left">
            <th scope="col">One takes</th>
            <th scope="col">Seconds</th>
            <th scope="col">Usual</th>
          </tr>
        </thead>
        <tbody>
          {EFFORTS.map((kind) => {
            const effort = view.efforts.find((each) => each.kind === kind)!;
            return (
              <tr key={kind} className="border-t border-edge">
                <th scope="row" className="py-1 pr-2 text-left font-normal">
                  {WORDS[kind]}
                </th>
                <td className="number py-1">
                  {effort.seconds.toFixed(1)} ± {effort.spread.toFixed(1)}
                </td>
                <td className="number py-1">{effort.usual.toFixed(1)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </details>
  );
}
