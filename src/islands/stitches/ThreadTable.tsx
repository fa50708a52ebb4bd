import type { ThreadAsDrill } from '../../core/stitches/fromStitches';
import { many } from '../../core/words/numbers';

/** Every thread with the drill that it becomes; any of them can be given another. */
export function ThreadTable({
  threads,
  onChoose,
}: {
  threads: ThreadAsDrill[];
  onChoose: (thread: string, drill: string) => void;
}) {
  return (
    <div className="overflow-x-auto bg-paper">
      <table className="w-full">
        <caption className="sr-only">Threads and the drills that they become</caption>
        <thead>
          <tr className="border-b border-edge text-left">
            <th className="px-3 py-2.5">Thread</th>
            <th className="px-3 py-2.5 text-right">Stitches</th>
            <th className="px-3 py-2.5">Drill</th>
          </tr>
        </thead>
        <tbody>
          {threads.map((each) => (
            <tr key={`${each.thread.code} ${each.thread.symbol}`} className="border-b border-edge/40">
              <td className="px-3 py-2">
                <span className="flex items-center gap-2.5">
                  <Swatch hex={each.thread.hex} />
                  <span className="leading-tight">
                    <span translate="no" className="number block font-semibold">
                      {each.thread.code}
                    </span>
                    <span className="text-[0.95rem] text-faded">
                      {each.thread.name}
                      {each.thread.symbol !== null && (
                        <>
                          {each.thread.name !== '' && ', '}symbol{' '}
                          <span translate="no" className="number">
                            {each.thread.symbol}
                          </span>
                        </>
                      )}
                    </span>
                  </span>
                </span>
              </td>
              <td className="number px-3 py-2 text-right">{many(each.stitches)}</td>
              <td className="px-3 py-2">
                <span className="flex max-w-xl items-center gap-2.5">
                  <Swatch hex={each.offers.find(({ code }) => code === each.drill)?.hex ?? each.thread.hex} />
                  <Choice each={each} onChoose={onChoose} />
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Choice({
  each,
  onChoose,
}: {
  each: ThreadAsDrill;
  onChoose: (thread: string, drill: string) => void;
}) {
  const { thread, drill, offers } = each;
  const codes = [...new Set([drill ?? '', ...offers.map(({ code }) => code), thread.code])];
  if (codes.length <= 1) return <span className="number font-semibold">{drill}</span>;
  return (
    <select
      className="field number"
      aria-label={`Drill for thread ${thread.code}`}
      value={drill ?? ''}
      onChange={(event) => onChoose(thread.code, event.target.value)}
    >
      {codes.map((code) => (
        <option key={code} value={code} disabled={code === ''}>
          {code === '' ? 'No colour to compare: choose one' : `${code}, ${about(code, each)}`}
        </option>
      ))}
    </select>
  );
}

function about(code: string, { drill, how, offers }: ThreadAsDrill): string {
  if (code === drill && how === 'same') return 'the same code';
  const near = offers.find((offer) => offer.code === code)?.inWords ?? 'the thread’s own code';
  return code === drill && how === 'chosen' ? `${near}, chosen by hand` : near;
}

function Swatch({ hex }: { hex: string | null }) {
  return (
    <span
      className="inline-block size-8 shrink-0 border border-edge"
      style={hex === null ? {} : { background: hex }}
      aria-hidden
    />
  );
}
