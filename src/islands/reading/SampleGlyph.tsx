import { useCallback } from 'react';
import { LOOK_SIDE } from '../../core/reading/cellLooks';
import { bytesFromText } from '../../core/reading/keptReading';
import { toSrgb } from '../../core/reading/photo';
import type { ReadingSample } from '../../server/reading/contract';

/** How a colour looks in print: its symbol over its tint. */
export function SampleGlyph({ sample, size = 40 }: { sample: ReadingSample; size?: number }) {
  const draw = useCallback(
    (canvas: HTMLCanvasElement | null) => {
      const context = canvas?.getContext('2d');
      if (!context) return;
      const glyph = new Float32Array(bytesFromText(sample.glyph).buffer);
      const strongest = glyph.reduce((most, value) => Math.max(most, Math.abs(value)), 1e-6);
      const picture = context.createImageData(LOOK_SIDE, LOOK_SIDE);
      glyph.forEach((value, i) => {
        for (let channel = 0; channel < 3; channel++) {
          // Ink is darker or lighter than the tint; how much was not kept.
          const tint = toSrgb(sample.tint[channel]!);
          const share = value / strongest;
          picture.data[i * 4 + channel] = share < 0 ? tint * (1 + share) : tint + (255 - tint) * share;
        }
        picture.data[i * 4 + 3] = 255;
      });
      context.putImageData(picture, 0, 0);
    },
    [sample],
  );
  return (
    <canvas
      ref={draw}
      width={LOOK_SIDE}
      height={LOOK_SIDE}
      style={{ width: size, height: size, imageRendering: 'pixelated' }}
      className="shrink-0 border border-edge"
      aria-hidden
    />
  );
}
