import type { SortingHelp } from '../../core/kitup/sorting';
import { counted } from '../../core/words/numbers';

/** How to bring an unordered heap into order in two passes. */
export function SortingSlip({ help }: { help: SortingHelp }) {
  if (help.bags < 20) return null;
  return (
    <details className="slip">
      <summary className="min-h-11 py-1.5 font-semibold">
        Sort the heap first: {counted(help.piles.length, 'pile')}, two passes
      </summary>
      <p>
        First pass: lay each of the {help.bags} bags on one of {counted(help.piles.length, 'pile')}, by its
        code. Second pass: bring each pile into order by itself, at most {help.largest} bags at once.
      </p>
      <ol className="my-2 grid grid-cols-2 gap-x-4">
        {help.piles.map((pile, i) => (
          <li key={pile.from} className="number flex gap-2 border-b border-line py-1">
            <span className="min-w-6 font-semibold">{i + 1}</span>
            <span>{pile.from === pile.to ? pile.from : `${pile.from}–${pile.to}`}</span>
            <span className="ml-auto text-faded">{pile.bags}</span>
          </li>
        ))}
      </ol>
      {help.digits && (
        <p>
          With key numbers on the bags you need not compare: first {counted(help.digits.first.length, 'pile')}{' '}
          by the <strong>last</strong> digit, gathered in order; then{' '}
          {counted(help.digits.second.length, 'pile')} by the <strong>first</strong>.
        </p>
      )}
    </details>
  );
}
