import type { ReactNode } from 'react';
import { type PlanFigures, spanInWords } from '../../core/sections/planInWords';
import { many } from '../../core/words/numbers';

/** What a new cut comes to, beside the present one. */
export function CutFigures({
  now,
  next,
  hasChart,
  minutes,
  children,
}: {
  now: PlanFigures | null;
  next: PlanFigures | null;
  hasChart: boolean;
  /** Of a sitting that was asked for; null where none was. */
  minutes: number | null;
  /** What can be done with the new cut. */
  children?: ReactNode;
}) {
  const rows: [string, (figures: PlanFigures) => string][] = [
    ['Sections left', ({ sections }) => many(sections)],
    ['They take', spanInWords],
    ...(hasChart
      ? [
          ['Colours opened', ({ openings }: PlanFigures) => many(openings)] as [
            string,
            (f: PlanFigures) => string,
          ],
        ]
      : []),
    ['Hand in the way', ({ conflicts }) => (conflicts === 0 ? 'never' : `in ${many(conflicts)}`)],
    ['Do not fit', ({ misfits }) => (misfits === 0 ? 'none' : many(misfits))],
    ['Most bare', ({ worstCm2 }) => `${many(Math.round(worstCm2))} cm²`],
  ];
  return (
    <div className="slip !py-3" aria-live="polite" data-testid="cut-figures">
      {next && (
        <>
          <p className="big-number">{many(next.sections)}</p>
          <p className="mb-2">
            {next.sections === 1 ? 'section' : 'sections'}, {spanInWords(next)}
            {minutes !== null && `, for sittings of ${many(minutes)}`}
          </p>
          {children}
        </>
      )}
      <table className="w-full text-[0.98rem]">
        <thead>
          <tr className="text-left">
            <th scope="col" className="font-normal">
              <span className="sr-only">What</span>
            </th>
            <th scope="col">Now</th>
            {next && <th scope="col">New</th>}
          </tr>
        </thead>
        <tbody>
          {rows.map(([words, of]) => (
            <tr key={words} className="border-t border-edge align-top">
              <th scope="row" className="py-1 pr-2 text-left font-normal">
                {words}
              </th>
              <td className="number py-1 pr-2">{now ? of(now) : '…'}</td>
              {next && <td className="number py-1 font-semibold">{of(next)}</td>}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
