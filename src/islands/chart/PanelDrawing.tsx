import type { Panel } from '../../core/chart/panels';
import { counted } from '../../core/words/numbers';
import type { ShelfEntry } from '../../server/shelf/contract';

/** The picture in small with the outline of each panel; outlines cross where panels overlap. */
export function PanelDrawing({
  entry: { canvas, hasChart },
  panels,
}: {
  entry: ShelfEntry;
  panels: Panel[];
}) {
  const { width, height } = canvas;
  const unit = Math.max(width, height);
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="max-h-[34rem] w-full border border-edge bg-cloth"
      role="img"
      aria-label={`${canvas.title} cut into ${counted(panels.length, 'panel')}`}
    >
      {hasChart && (
        <image
          href={`/api/canvases/${canvas.id}/picture.png?width=900`}
          width={width}
          height={height}
          opacity={0.8}
        />
      )}
      {panels.map(({ number, rect }) => (
        <g key={number}>
          <rect {...rect} fill="none" stroke="#fffdf7" strokeWidth={unit / 110} />
          <rect {...rect} fill="none" stroke="#17130f" strokeWidth={unit / 260} />
          <circle
            cx={rect.x + rect.width / 2}
            cy={rect.y + rect.height / 2}
            r={unit / 24}
            fill="#fffdf7"
            stroke="#17130f"
            strokeWidth={unit / 260}
          />
          <text
            x={rect.x + rect.width / 2}
            y={rect.y + rect.height / 2 + unit / 60}
            textAnchor="middle"
            fontSize={unit / 20}
            fontWeight="700"
            fill="#17130f"
          >
            {number}
          </text>
        </g>
      ))}
    </svg>
  );
}
