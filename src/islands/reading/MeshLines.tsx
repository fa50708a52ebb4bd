import { memo } from 'react';
import type { Mesh, Pin } from '../../core/reading/mesh';

/** The lines between squares as they were followed, over a photo; each fifth is stronger, so that a slip is seen. */
export const MeshLines = memo(function MeshLines({ mesh, pins }: { mesh: Mesh; pins: readonly Pin[] }) {
  const { columns, rows, x, y } = mesh;
  const way = (nodes: number[]) =>
    nodes.map((node, i) => `${i === 0 ? 'M' : 'L'}${x[node]!.toFixed(1)} ${y[node]!.toFixed(1)}`).join('');
  const down = (column: number) => Array.from({ length: rows + 1 }, (_, row) => row * (columns + 1) + column);
  const across = (row: number) => Array.from({ length: columns + 1 }, (_, i) => row * (columns + 1) + i);
  const lines = [
    ...Array.from({ length: columns + 1 }, (_, i) => ({
      key: `c${i}`,
      strong: i % 5 === 0,
      d: way(down(i)),
    })),
    ...Array.from({ length: rows + 1 }, (_, i) => ({ key: `r${i}`, strong: i % 5 === 0, d: way(across(i)) })),
  ];
  return (
    <>
      {lines.map(({ key, strong, d }) => (
        <g key={key} fill="none">
          {strong && (
            <path
              d={d}
              stroke="#ffffff"
              strokeWidth={3.2}
              strokeOpacity={0.8}
              vectorEffect="non-scaling-stroke"
            />
          )}
          <path d={d} stroke="#b3005e" strokeWidth={strong ? 1.6 : 0.9} vectorEffect="non-scaling-stroke" />
        </g>
      ))}
      {pins.map(({ column, row, x: px, y: py }) => (
        <circle
          key={`${column} ${row}`}
          cx={px}
          cy={py}
          r={8}
          fill="#ffdf8a"
          stroke="#251f18"
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </>
  );
});
