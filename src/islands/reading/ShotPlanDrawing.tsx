import type { ShotPlan, ShotState } from '../../core/reading/shotPlan';

const FILL: Record<ShotState, string> = {
  missing: 'transparent',
  there: 'var(--c-lamp)',
  read: 'var(--c-wash)',
};

/** The outline of the canvas with the part that each photo is to show. */
export function ShotPlanDrawing({
  canvas,
  plan,
  states,
}: {
  canvas: { width: number; height: number };
  plan: ShotPlan;
  /** Of each part. */
  states: readonly ShotState[];
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
        const state = states[i] ?? 'missing';
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
