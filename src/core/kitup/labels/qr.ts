import { create } from 'qrcode';

const QUIET = 2;

/** A QR code as one path of modules; `size` is its side with the quiet zone, in modules. */
export function qrPath(address: string): { size: number; d: string } {
  const { modules } = create(address, { errorCorrectionLevel: 'M' });
  const parts: string[] = [];
  for (let y = 0; y < modules.size; y++) {
    for (let x = 0; x < modules.size; ) {
      let length = 0;
      while (x + length < modules.size && modules.get(y, x + length)) length++;
      if (length > 0) parts.push(`M${x + QUIET} ${y + QUIET}h${length}v1h-${length}Z`);
      x += Math.max(1, length);
    }
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
