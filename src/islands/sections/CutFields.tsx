import type { CellRect } from '../../core/cells/chart';
import type { CutKind, CutWish } from '../../core/sections/propose';
import { NumberField } from '../../ui/NumberField';
import { OrderFields } from './OrderFields';

type Wish = Omit<CutWish, 'kind' | 'mostColumns' | 'mostRows'>;

/** What each way of cutting wants to know. */
export function CutFields({
  kind,
  cut,
  canvas,
  onChange,
  limited,
  fits,
  onFits,
}: {
  kind: CutKind;
  cut: Wish;
  canvas: { width: number; height: number };
  onChange: (part: Partial<Wish>) => void;
  /** Whether a light pad or a frame is named. */
  limited: boolean;
  fits: boolean;
  onFits: (fits: boolean) => void;
}) {
  const timed = kind !== 'strips' && kind !== 'blocks';
  return (
    <div className="flex flex-col gap-3">
      {timed && (
        <NumberField
          words="Minutes of a sitting"
          value={cut.minutes}
          least={5}
          most={600}
          whole
          onChange={(minutes) => onChange({ minutes })}
        />
      )}
      {kind === 'blocks' && (
        <div className="grid grid-cols-2 gap-3">
          <NumberField
            words="Width in squares"
            value={cut.columns}
            least={5}
            most={4000}
            whole
            onChange={(columns) => onChange({ columns })}
          />
          <NumberField
            words="Height in squares"
            value={cut.rows}
            least={5}
            most={4000}
            whole
            onChange={(rows) => onChange({ rows })}
          />
        </div>
      )}
      {kind === 'strips' && (
        <div className="grid grid-cols-2 gap-3">
          <label className="block">
            <span className="mb-0.5 block text-[0.95rem] leading-tight">Strips go</span>
            <select
              className="field"
              value={cut.along}
              onChange={(event) => onChange({ along: event.target.value as Wish['along'] })}
            >
              <option value="columns">from top to bottom</option>
              <option value="rows">from left to right</option>
            </select>
          </label>
          <NumberField
            words="Breadth in squares"
            value={cut.along === 'columns' ? cut.columns : cut.rows}
            least={5}
            most={4000}
            whole
            onChange={(breadth) =>
              onChange(cut.along === 'columns' ? { columns: breadth } : { rows: breadth })
            }
          />
        </div>
      )}
      {kind === 'focal' && <FocalFields focal={cut.focal} canvas={canvas} onChange={onChange} />}
      {timed && (
        <label className="flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            className="size-5 accent-accent"
            checked={cut.snap === 10}
            onChange={(event) => onChange({ snap: event.target.checked ? 10 : 1 })}
          />
          Cuts on every 10th square only
        </label>
      )}
      {timed && limited && (
        <label className="flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            className="size-5 accent-accent"
            checked={fits}
            onChange={(event) => onFits(event.target.checked)}
          />
          Each fits your light pad and frame
        </label>
      )}
      {kind !== 'focal' && <OrderFields order={cut.order} onChange={(order) => onChange({ order })} />}
    </div>
  );
}

/** The focal part by numbers, for those who do not draw it. */
function FocalFields({
  focal,
  canvas,
  onChange,
}: {
  focal: CellRect | null;
  canvas: { width: number; height: number };
  onChange: (part: Partial<Wish>) => void;
}) {
  const rect = focal ?? {
    x: 0,
    y: 0,
    width: Math.min(20, canvas.width),
    height: Math.min(20, canvas.height),
  };
  const set = (part: Partial<CellRect>) => {
    const next = { ...rect, ...part };
    onChange({
      focal: {
        ...next,
        width: Math.min(next.width, canvas.width - next.x),
        height: Math.min(next.height, canvas.height - next.y),
      },
    });
  };
  return (
    <fieldset className="flex flex-col gap-2">
      <legend>Draw it on the picture (a finger holds still for a moment first), or say where it is:</legend>
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          words="From column"
          value={rect.x + 1}
          least={1}
          most={canvas.width}
          whole
          onChange={(column) => set({ x: column - 1 })}
        />
        <NumberField
          words="From row"
          value={rect.y + 1}
          least={1}
          most={canvas.height}
          whole
          onChange={(row) => set({ y: row - 1 })}
        />
        <NumberField
          words="Columns"
          value={rect.width}
          least={1}
          most={canvas.width}
          whole
          onChange={(width) => set({ width })}
        />
        <NumberField
          words="Rows"
          value={rect.height}
          least={1}
          most={canvas.height}
          whole
          onChange={(height) => set({ height })}
        />
      </div>
    </fieldset>
  );
}
