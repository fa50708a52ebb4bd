import { create } from 'qrcode';
import { forEachRun } from '../cells/runs';

const QUIET = 2;

/** A QR code as one path of modules; `size` is its side with the quiet zone, in modules. */
export function qrPath(address: string): { size: number; d: string } {
  const { modules } = create(address, { errorCorrectionLevel: 'M' });
  const parts: string[] = [];
  for (let y = 0; y < modules.size; y++) {
    forEachRun(
      modules.size,
      (x) => Boolean(modules.get(y, x)),
      (x, length, dark) => {
        if (dark) parts.push(`M${x + QUIET} ${y + QUIET}h${length}v1h-${length}Z`);
      },
    );
  }
  return { size: modules.size + 2 * QUIET, d: parts.join('') };
}

/**
 * The address of a colour as short as it can be: capitals, digits and few signs fit into the dense mode of a QR code
 * (ISO/IEC 18004, alphanumeric mode), and a canvas is known by the last eight digits of its id.
 */
export function colourAddress(origin: string, canvasId: string, line: number): string {
  return `${origin}/Q/${canvasId.slice(-8)}/${line}`.toUpperCase();
}
