import type { Shape } from '../../core/canvas/canvas';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import type { CountSuspect } from '../../core/reading/review';
import { many } from '../../core/words/numbers';
import { Colour } from '../../ui/Chip';

/** Colours that were read more or less often than the colour list says. */
export function CountSuspects({
  suspects,
  whole,
  legend,
  shape,
  onLook,
}: {
  suspects: readonly CountSuspect[];
  /** Whether the whole canvas was read. */
  whole: boolean;
  legend: LegendLine[];
  shape: Shape;
  onLook: (line: number) => void;
}) {
  if (!whole)
    return (
      <p className="text-lg">Counts can be compared with the colour list once the whole canvas is read.</p>
    );
  if (suspects.length === 0)
    return <p className="text-lg">Every colour was read as often as the colour list says.</p>;
  return (
    <table className="w-full max-w-4xl">
      <caption className="sr-only">Counts that are not those of the colour list</caption>
      <thead>
        <tr className="text-left">
          <th>Colour</th>
          <th className="text-right">Read</th>
          <th className="text-right">On the list</th>
          <th className="text-right">Difference</th>
          <th className="pl-4">Perhaps</th>
        </tr>
      </thead>
      <tbody>
        {suspects.map(({ line, read, needed, perhaps }) => {
          const colour = ofLine(legend, line);
          const other = ofLine(legend, perhaps);
          const tooMany = read > needed;
          return (
            <tr key={line} className="border-t border-line">
              <td className="py-1">{colour && <Colour line={colour} shape={shape} />}</td>
              <td className="number text-right">{many(read)}</td>
              <td className="number text-right">{many(needed)}</td>
              <td className="text-right">
                {many(Math.abs(read - needed))} {tooMany ? 'too many' : 'too few'}
              </td>
              <td className="pl-4">
                <button
                  type="button"
                  className="button"
                  // Of what is too few, the squares are to be found among another colour's.
                  onClick={() => onLook(tooMany || perhaps === null ? line : perhaps)}
                >
                  {other ? `Mixed up with ${other.code}: look` : 'Look at them'}
                </button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
