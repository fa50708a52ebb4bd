import { qrPath } from '../../core/labels/qr';
import type { CodeSource } from './useCodeReader';

/** A stand-in for a camera: it sees a label held a little askew, in uneven light. */
export function standInCamera(address: string): CodeSource & { paint(into: HTMLCanvasElement): void } {
  const [width, height] = [640, 480];
  const { size, d } = qrPath(address);
  const draw = (context: CanvasRenderingContext2D) => {
    const light = context.createLinearGradient(0, 0, width, height);
    light.addColorStop(0, '#8d857a');
    light.addColorStop(1, '#4c463f');
    context.fillStyle = light;
    context.fillRect(0, 0, width, height);
    context.save();
    context.translate(width / 2, height / 2);
    context.rotate(0.19);
    context.transform(1, 0.05, 0.08, 0.94, 0, 0);
    context.scale(260 / size, 260 / size);
    context.translate(-size / 2, -size / 2);
    context.fillStyle = '#e8e3da';
    context.fillRect(0, 0, size, size);
    context.fillStyle = '#2a2622';
    context.fill(new Path2D(d));
    context.restore();
    return { width, height };
  };
  const resize = (canvas: HTMLCanvasElement) => {
    canvas.width = width;
    canvas.height = height;
  };
  return {
    draw: (context) => {
      resize(context.canvas);
      return draw(context);
    },
    paint: (into) => {
      resize(into);
      draw(into.getContext('2d')!);
    },
  };
}
