import type { Tray } from '../../core/storage/storage';

/** A tray drawn small: the outlines of its slots. */
export function TrayOutline({ tray }: { tray: Tray }) {
  const width = tray.columns * tray.unitWidthMm;
  const height = tray.rows * tray.unitDepthMm;
  return (
    <svg viewBox={`0 0 ${width} ${height}`} className="max-h-full min-w-0 max-w-full shrink" aria-hidden>
      <rect
        width={width}
        height={height}
        fill="var(--c-cloth)"
        stroke="var(--c-edge)"
        strokeWidth={width / 60}
      />
      {tray.slots.map((slot) => {
        const place = {
          x: slot.x * tray.unitWidthMm + tray.wallMm / 2,
          y: slot.y * tray.unitDepthMm + tray.wallMm / 2,
          width: slot.width * tray.unitWidthMm - tray.wallMm,
          height: slot.height * tray.unitDepthMm - tray.wallMm,
        };
        return (
          <rect
            key={slot.id}
            {...place}
            rx={slot.form === 'round' ? place.width / 2 : 2}
            fill="var(--c-paper)"
            stroke="var(--c-edge)"
          />
        );
      })}
    </svg>
  );
}
