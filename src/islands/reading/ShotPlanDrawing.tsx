import type { CellRect } from '../../core/cells/chart';
import type { ShotPlan } from '../../core/reading/shotPlan';
import type { ReadingPhoto } from '../../server/reading/contract';

/** How far the photo of a part is. */
export type ShotState = 'missing' | 'there' | 'read';

/** Whether a photo shows a part: it says so, or lies nearly there. */
function shows({ at, columns, rows }: ReadingPhoto, { x, y, width, height }: CellRect): boolean {
  if (!at || columns === null || rows === null) return false;
  const [w, h] = [
    Math.min(at.column + columns, x + width) - Math.max(at.column, x),
    Math.min(at.row + rows, y + height) - Math.max(at.row, y),
  ];
  return w > 0 && h > 0 && w * h > 0.7 * width * height;
}

export function stateOfShot(rect: CellRect, photos: readonly ReadingPhoto[]): ShotState {
  const own = photos.filter((photo) => shows(photo, rect));
  if (own.some(({ reading }) => reading)) return 'read';
  return own.length > 0 ? 'there' : 'missing';
}

const FILL: Record<ShotState, string> = {
  missing: 'transparent',
  there: 'var(--c-lamp)',
  read: 'var(--c-wash)',
};

/** The outline of the canvas with the part that each photo is to show. */
export function ShotPlanDrawing({
  canvas,
  plan,
  photos,
}: {
  canvas: { width: number; height: number };
  plan: ShotPlan;
  photos: readonly ReadingPhoto[];
}) {
  const { width, height } = canvas;
  const unit = Math.max(width, height) / 100;
  return (
    <svg
      viewBox={`${-unit} ${-unit} ${width + 2 * unit} ${height + 2 * unit}`}
      className="max-h-80 w-full"
      role="img"
      aria-label={`The canvas in ${plan.shots.length} photos, ${plan.across} across and ${plan.down} down`}
    >
      <rect
        width={width}
        height={height}
        fill="var(--c-cloth)"
        stroke="var(--c-ink)"
        strokeWidth={unit * 0.6}
      />
      {plan.shots.map((rect, i) => {
        const state = stateOfShot(rect, photos);
        const gap = unit;
        return (
          <g key={`${rect.x} ${rect.y}`}>
            <rect
              x={rect.x + gap}
              y={rect.y + gap}
              width={rect.width - 2 * gap}
              height={rect.height - 2 * gap}
              rx={unit}
              fill={FILL[state]}
              fillOpacity={0.55}
              stroke="var(--c-accent)"
              strokeWidth={unit * 0.6}
              strokeDasharray={state === 'missing' ? `${unit * 2} ${unit}` : undefined}
            />
            <text
              x={rect.x + rect.width / 2}
              y={rect.y + rect.height / 2 + unit * 3}
              fontSize={unit * 9}
              textAnchor="middle"
              fill="var(--c-ink)"
              fontFamily="var(--font-mono)"
            >
              {i + 1}
              {state === 'read' ? '✓' : ''}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
