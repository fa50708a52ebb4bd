import type { Canvas } from '../canvas/canvas';

/** A frame as it is sold, by the size of the picture that it takes. Lengths in mm. */
interface Frame {
  name: string;
  widthMm: number;
  heightMm: number;
}

/** A frame beside a picture. */
export interface FrameFit extends Frame {
  /** What is seen of the cloth (or of a mount) on each side, mm; below 0 the frame hides that much of the picture. */
  sideMm: number;
  topMm: number;
}

const cm = (width: number, height: number): Frame => ({
  name: `${width} × ${height} cm`,
  widthMm: width * 10,
  heightMm: height * 10,
});
const inches = (width: number, height: number): Frame => ({
  name: `${width} × ${height} in`,
  widthMm: width * 25.4,
  heightMm: height * 25.4,
});

/** Sizes in which frames are commonly sold, upright (common practice, no source). */
const COMMON_FRAMES: readonly Frame[] = [
  cm(13, 18),
  cm(15, 20),
  cm(18, 24),
  cm(20, 20),
  cm(20, 30),
  cm(24, 30),
  cm(30, 30),
  cm(30, 40),
  cm(40, 40),
  cm(40, 50),
  cm(40, 60),
  cm(50, 50),
  cm(50, 60),
  cm(50, 70),
  cm(60, 80),
  cm(60, 90),
  cm(70, 100),
  cm(80, 100),
  inches(8, 10),
  inches(11, 14),
  inches(12, 12),
  inches(12, 16),
  inches(16, 20),
  inches(18, 24),
  inches(20, 24),
  inches(24, 30),
  inches(24, 36),
  inches(30, 40),
];

/** Cloth stretches and frames have play: so much of a picture may lie under the edge of its frame, mm. */
const HIDDEN_MM = 2;

/** Size of the picture itself, without the cloth around it, mm. */
function pictureMm({ width, height, pitchMm }: Pick<Canvas, 'width' | 'height' | 'pitchMm'>): {
  widthMm: number;
  heightMm: number;
} {
  return { widthMm: width * pitchMm, heightMm: height * pitchMm };
}

/**
 * Frames that take a picture with some cloth around it, the closest first, upright or lying as the picture is.
 * @param borderMm cloth (or mount) that shall show on every side
 * @example framesFor({ width: 120, height: 160, pitchMm: 2.5 }, 0)[0]!.name // '30 × 40 cm'
 */
export function framesFor(
  canvas: Pick<Canvas, 'width' | 'height' | 'pitchMm'>,
  borderMm: number,
  most = 5,
): FrameFit[] {
  const picture = pictureMm(canvas);
  const lies = picture.widthMm > picture.heightMm;
  return COMMON_FRAMES.map((frame): FrameFit => {
    const [widthMm, heightMm] = lies ? [frame.heightMm, frame.widthMm] : [frame.widthMm, frame.heightMm];
    const [first, second] = frame.name.split(' × ');
    const [size, unit] = second!.split(' ');
    const name = lies ? `${size} × ${first} ${unit}` : frame.name;
    return { name, widthMm, heightMm, ...around(picture, { widthMm, heightMm }) };
  })
    .filter(({ sideMm, topMm }) => Math.min(sideMm, topMm) >= borderMm - HIDDEN_MM)
    .sort((a, b) => a.widthMm * a.heightMm - b.widthMm * b.heightMm)
    .slice(0, most);
}

function around(
  picture: { widthMm: number; heightMm: number },
  frame: { widthMm: number; heightMm: number },
): { sideMm: number; topMm: number } {
  return { sideMm: (frame.widthMm - picture.widthMm) / 2, topMm: (frame.heightMm - picture.heightMm) / 2 };
}

/** How a frame sits around a picture, as a sentence. */
export function fitInWords({ sideMm, topMm }: Pick<FrameFit, 'sideMm' | 'topMm'>): string {
  const length = (mm: number) => `${(mm / 10).toFixed(1)} cm (${(mm / 25.4).toFixed(1)} in)`;
  if (Math.max(Math.abs(sideMm), Math.abs(topMm)) <= HIDDEN_MM)
    return 'Fits just so: nothing of the margin shows.';
  if (Math.abs(sideMm - topMm) < 1) return `${length(sideMm)} of margin or mount on every side.`;
  return `${length(Math.max(0, sideMm))} left and right, ${length(Math.max(0, topMm))} above and below.`;
}
