import { CORNERS, type Corner, WORK_WAYS, type WorkOrder, type WorkWay } from '../../core/sections/order';
import { hasCorner, wayInWords } from '../../core/sections/planInWords';

/** In which order sections are worked, and where that begins. */
export function OrderFields({ order, onChange }: { order: WorkOrder; onChange: (order: WorkOrder) => void }) {
  return (
    <div className="grid grid-cols-2 gap-3">
      <label className="block">
        <span className="mb-0.5 block text-[0.95rem] leading-tight">Order of the work</span>
        <select
          className="field"
          value={order.way}
          onChange={(event) => onChange({ ...order, way: event.target.value as WorkWay })}
        >
          {WORK_WAYS.filter((way) => way !== 'focal first' || order.focal !== null).map((way) => (
            <option key={way} value={way}>
              {wayInWords(way)}
            </option>
          ))}
        </select>
      </label>
      {hasCorner(order.way) && (
        <label className="block">
          <span className="mb-0.5 block text-[0.95rem] leading-tight">Begin at the</span>
          <select
            className="field"
            value={order.corner}
            onChange={(event) => onChange({ ...order, corner: event.target.value as Corner })}
          >
            {CORNERS.map((corner) => (
              <option key={corner} value={corner}>
                {corner}
              </option>
            ))}
          </select>
        </label>
      )}
    </div>
  );
}
