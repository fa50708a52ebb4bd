import { makeChart } from '../src/core/cells/chart';
import type { Rgb } from '../src/core/colour/rgb';
import { fitCamera } from '../src/core/view/camera';
import { clothColours } from '../src/core/view/paint';
import { ClothRenderer } from '../src/ui/cloth/ClothRenderer';
import { IdleTiling } from '../src/ui/cloth/idleTiling';

/** Times of one camera path in milliseconds a frame. */
export interface PathTimes {
  path: string;
  p50: number;
  p95: number;
  /** Longest time of our own script at one go, in a frame or between two, without the drawing that the browser does after it. */
  script: number;
  /** Share of the frames in which something was seen from afar, for its tiles were not made yet. */
  lacking: number;
}

const VIEW = { width: 1240, height: 560 };
const SIDE = 1000;
const LINES = 200;

function quantile(times: number[], share: number): number {
  return [...times].sort((a, b) => a - b)[Math.floor((times.length - 1) * share)]!;
}

const nextFrame = () => new Promise((resolve) => requestAnimationFrame(resolve));

/** A page that shows a canvas of the same size takes as much by itself: it is shown before memory is measured first. */
function presented(): CanvasRenderingContext2D {
  const canvas = document.createElement('canvas');
  canvas.width = VIEW.width;
  canvas.height = VIEW.height;
  document.body.append(canvas);
  return canvas.getContext('2d')!;
}

/** Runs fixed camera paths over an invented chart of a million cells, and the floor in the same run. */
async function run(
  context: CanvasRenderingContext2D,
): Promise<{ renderer: ClothRenderer; opened: number; paths: PathTimes[] }> {
  // Blocks and confetti, as pictures have them.
  const cells = Uint16Array.from({ length: SIDE * SIDE }, (_, i) => {
    const [x, y] = [i % SIDE, Math.floor(i / SIDE)];
    const block = ((x >> 4) * 31 + (y >> 4) * 17) % LINES;
    return ((i * 2654435761) >>> 9) % 5 === 0 ? (((i * 40503) >>> 3) % LINES) + 1 : block + 1;
  });
  const drills = Array.from(
    { length: LINES },
    (_, i): Rgb => [(i * 37) % 256, (i * 91) % 256, (i * 53) % 256],
  );
  const ground: Rgb = [243, 238, 229];
  const palette = {
    colours: clothColours(drills, ground),
    symbols: ['', ...drills.map((_, i) => String.fromCodePoint(0x41 + (i % 58)))],
    drawings: [],
    special: [],
    ground,
    ink: '#000000',
    eyes: { symbols: 'usual', lines: 'usual', contrast: 'usual' } as const,
  };
  const start = performance.now();
  const renderer = new ClothRenderer(makeChart(SIDE, SIDE, cells), palette, 'square');
  renderer.setWish({ laid: null, focus: null });
  const whole = fitCamera({ x: 0, y: 0, width: SIDE, height: SIDE }, VIEW);
  renderer.draw(context, whole, VIEW, 1);
  context.getImageData(0, 0, 1, 1);
  const opened = performance.now() - start;

  const tiling = new IdleTiling();
  const timed = async (path: string, frames: (() => boolean)[]): Promise<PathTimes> => {
    const all: number[] = [];
    let script = 0;
    let lacking = 0;
    const timedMaker = {
      prepare(ms: number) {
        const from = performance.now();
        const made = renderer.prepare(ms);
        script = Math.max(script, performance.now() - from);
        return made;
      },
    };
    for (const frame of frames) {
      await nextFrame();
      const from = performance.now();
      if (!frame()) lacking++;
      script = Math.max(script, performance.now() - from);
      // Reading a pixel waits until the frame is really drawn.
      context.getImageData(0, 0, 1, 1);
      all.push(performance.now() - from);
      tiling.afterFrame(
        () => timedMaker,
        () => {},
      );
    }
    return { path, p50: quantile(all, 0.5), p95: quantile(all, 0.95), script, lacking: lacking / all.length };
  };
  const screen = document.createElement('canvas');
  screen.width = VIEW.width;
  screen.height = VIEW.height;
  screen.getContext('2d')!.drawImage(context.canvas, 0, 0);
  const steps = (count: number, camera: (share: number) => { scale: number; left: number; top: number }) =>
    Array.from({ length: count }, (_, i) => () => renderer.draw(context, camera(i / (count - 1)), VIEW, 1));
  const pan = (scale: number) =>
    steps(120, (share) => ({ scale, left: 200 + (share * 1500) / scale, top: 300 + (share * 700) / scale }));
  const zoom = (from: number, to: number) =>
    steps(120, (share) => {
      const scale = from * (to / from) ** share;
      return { scale, left: 500 - VIEW.width / scale / 2, top: 500 - VIEW.height / scale / 2 };
    });
  const floorFrames = Array.from({ length: 120 }, () => () => {
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.drawImage(screen, 0, 0);
    return true;
  });
  await timed('warm up', floorFrames);
  return {
    renderer,
    opened,
    paths: [
      await timed('floor: one full-screen bitmap', floorFrames),
      await timed('pan, whole picture', pan(0.56)),
      await timed('pan, 3 px a cell', pan(3)),
      await timed('pan, 12 px a cell', pan(12)),
      await timed('pan, 24 px a cell', pan(24)),
      await timed('pan, 60 px a cell', pan(60)),
      await timed('pan, 5 cells across', pan(160)),
      await timed('zoom, whole to 5 cells', zoom(0.56, 160)),
      await timed('zoom back', zoom(160, 0.56)),
    ],
  };
}

let context: CanvasRenderingContext2D;
// The renderer is kept, so that what the cloth holds is still there when the memory is measured.
Object.assign(window, {
  presentBench: async () => {
    context = presented();
    for (let frame = 0; frame < 60; frame++) {
      await nextFrame();
      context.fillStyle = `rgb(${frame}, 0, 0)`;
      context.fillRect(0, 0, VIEW.width, VIEW.height);
    }
  },
  runBench: async () => {
    const { renderer, ...times } = await run(context);
    Object.assign(window, { renderer });
    return times;
  },
});
