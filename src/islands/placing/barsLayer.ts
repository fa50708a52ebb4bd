import type { Placement } from '../../core/placing/barPlan';
import { CUT, LAMP, type Layer, toPx } from '../../ui/cloth/layers';

/** Bars to lay: one rounded outline a placement, its number of drills inside where there is room. */
export function barsLayer(placements: readonly Placement[], direction: 'rows' | 'columns'): Layer {
  return (context, camera) => {
    for (const { x, y, drills } of placements) {
      const rect =
        direction === 'rows' ? { x, y, width: drills, height: 1 } : { x, y, width: 1, height: drills };
      const [left, top, w, h] = toPx(rect, camera);
      const inset = Math.min(3, camera.scale * 0.12);
      context.beginPath();
      context.roundRect(left + inset, top + inset, w - 2 * inset, h - 2 * inset, camera.scale * 0.28);
      context.lineWidth = 4.5;
      context.strokeStyle = CUT;
      context.stroke();
      context.lineWidth = 2;
      context.strokeStyle = LAMP;
      context.stroke();
      if (drills > 1 && camera.scale >= 15) {
        context.font = `700 ${Math.min(20, camera.scale * 0.62)}px 'Atkinson Hyperlegible Mono Variable'`;
        context.textAlign = 'center';
        context.textBaseline = 'middle';
        context.beginPath();
        context.arc(left + w / 2, top + h / 2, camera.scale * 0.46, 0, 2 * Math.PI);
        context.fillStyle = '#fbf8f2';
        context.fill();
        context.fillStyle = CUT;
        context.fillText(String(drills), left + w / 2, top + h / 2);
      }
    }
  };
}
