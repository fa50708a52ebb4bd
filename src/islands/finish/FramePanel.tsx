import { type Canvas, sizeInWords } from '../../core/canvas/canvas';
import { fitInWords } from '../../core/finish/frames';
import { type FinishChange, SEALING_CAUTIONS, type Sealing } from '../../core/finish/record';
import type { FinishView } from '../../server/finish/contract';
import { NumberField } from '../../ui/NumberField';

const SEALING_WORDS: Record<Sealing, string> = {
  open: 'not decided yet',
  no: 'no, it stays as it is',
  yes: 'yes, it is sealed',
};

/** Sealing or not, with the usual cautions, and which frames take the picture. */
export function FramePanel({
  canvas,
  view,
  onChange,
}: {
  canvas: Canvas;
  view: FinishView;
  onChange: (part: FinishChange) => void;
}) {
  const { record, frames } = view;
  return (
    <div className="grid gap-6 lg:grid-cols-2">
      <section className="slip flex flex-col gap-3 self-start">
        <h2>Sealing</h2>
        <p>
          A sound adhesive holds by itself. Where drills still pop after pressing, or where the canvas will be
          touched, many seal it; it dulls the sparkle a little.
        </p>
        <label className="flex flex-wrap items-center gap-x-3">
          <span className="font-semibold">Sealed</span>
          <select
            className="field !w-auto"
            value={record.sealing}
            onChange={(event) => onChange({ sealing: event.target.value as Sealing })}
          >
            {Object.entries(SEALING_WORDS).map(([key, words]) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <ul className="list-disc pl-5 text-[0.95rem]">
          {SEALING_CAUTIONS.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      </section>
      <section className="slip flex flex-col gap-3 self-start">
        <h2>Frame</h2>
        <p>The picture itself measures {sizeInWords(canvas)}.</p>
        <NumberField
          words="Margin to show around it"
          className="max-w-56"
          unit="mm"
          value={record.borderMm}
          least={0}
          most={1000}
          late
          onChange={(borderMm) => onChange({ borderMm })}
        />
        {frames.length === 0 ? (
          <p>
            No common frame takes it with so much margin; a frame is made to measure, or the border is
            smaller.
          </p>
        ) : (
          <ul className="flex flex-col divide-y divide-line" aria-label="Frames that take it">
            {frames.map((frame) => {
              const isChosen =
                record.frame?.widthMm === frame.widthMm && record.frame.heightMm === frame.heightMm;
              return (
                <li key={frame.name} className="flex flex-wrap items-center gap-3 py-1.5">
                  <button
                    type="button"
                    aria-pressed={isChosen}
                    className={`button ${isChosen ? 'button-on' : ''}`}
                    onClick={() =>
                      onChange({
                        frame: isChosen ? null : { widthMm: frame.widthMm, heightMm: frame.heightMm },
                      })
                    }
                  >
                    {frame.name}
                  </button>
                  <span className="min-w-0">{fitInWords(frame)}</span>
                </li>
              );
            })}
          </ul>
        )}
        <p className="text-[0.95rem] text-faded">
          Measure the canvas before you buy, for it stretches. Trim with a sharp blade along a ruler, away
          from the fingers, on a firm base; keep blades from children. Leave the margin that the frame’s edge
          holds.
        </p>
      </section>
    </div>
  );
}
