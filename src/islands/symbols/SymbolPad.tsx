import { type KeyboardEvent, type PointerEvent, useCallback, useRef, useState } from 'react';
import type { Shape } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { DRAWING_SIDE, tracedPath } from '../../core/symbols/trace';
import { arrowStep } from '../../ui/arrowKeys';
import { Chip } from '../../ui/Chip';
import { Dialog } from '../../ui/Dialog';
import { Notice } from '../../ui/Notice';
import { isPressed } from '../../ui/pressed';
import { PictureCrop } from './PictureCrop';

/** Side of the pad in CSS pixels, and the width of its pen. */
const PAD = 320;
const PEN = 30;
/** Steps of the pen when it is moved by keys. */
const STEPS = 16;

/** A pad to draw a symbol on, by finger, pointer or keys, or to cut it out of a picture. */
export function SymbolPad({
  line,
  shape,
  onClose,
  onKeep,
}: {
  line: LegendLine;
  shape: Shape;
  onClose: () => void;
  /** @param path null goes back to the printed symbol */
  onKeep: (path: string | null) => void;
}) {
  const pad = useRef<HTMLCanvasElement>(null);
  const last = useRef<{ x: number; y: number } | null>(null);
  const [pen, setPen] = useState({ x: STEPS / 2, y: STEPS / 2 });
  const [path, setPath] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [byPicture, setByPicture] = useState(false);

  const ink = (from: { x: number; y: number }, to: { x: number; y: number }) => {
    const context = pad.current?.getContext('2d');
    if (!context) return;
    context.lineWidth = PEN;
    context.lineCap = 'round';
    context.lineJoin = 'round';
    context.strokeStyle = '#000';
    context.beginPath();
    context.moveTo(from.x, from.y);
    context.lineTo(to.x + 0.01, to.y);
    context.stroke();
  };
  const take = () => {
    if (pad.current) setPath(tracedPath(padInk(pad.current)));
    setFault(null);
  };
  const takeInk = useCallback((next: Float32Array) => setPath(tracedPath(next)), []);
  const place = (event: PointerEvent<HTMLCanvasElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    return {
      x: ((event.clientX - box.left) * PAD) / box.width,
      y: ((event.clientY - box.top) * PAD) / box.height,
    };
  };
  const clear = () => {
    pad.current?.getContext('2d')?.clearRect(0, 0, PAD, PAD);
    last.current = null;
    setPath(null);
  };
  const onKey = (event: KeyboardEvent) => {
    const move = arrowStep(event.key);
    const at = (p: { x: number; y: number }) => ({ x: (p.x * PAD) / STEPS, y: (p.y * PAD) / STEPS });
    if (move) {
      const next = {
        x: Math.min(STEPS - 1, Math.max(1, pen.x + move[0])),
        y: Math.min(STEPS - 1, Math.max(1, pen.y + move[1])),
      };
      if (event.shiftKey) {
        ink(at(pen), at(next));
        take();
      }
      setPen(next);
    } else if (event.key === ' ') {
      ink(at(pen), at(pen));
      take();
    } else return;
    event.preventDefault();
  };
  const shown = path === null ? line : { ...line, drawing: path };

  return (
    <Dialog
      title={
        <>
          The symbol of{' '}
          <span translate="no" className="number">
            {line.code}
          </span>
        </>
      }
      width={46}
      open
      onClose={onClose}
    >
      <div className="flex flex-wrap gap-5">
        {byPicture ? (
          <PictureCrop onInk={takeInk} onFault={setFault} />
        ) : (
          <div className="relative">
            {/* biome-ignore lint/a11y/noInteractiveElementToNoninteractiveRole: the pad takes arrow keys itself, which is what this role means */}
            <canvas
              ref={pad}
              width={PAD}
              height={PAD}
              tabIndex={0}
              role="application"
              aria-label="Drawing pad. Arrow keys move the pen, Space makes a dot, Shift and an arrow draw a line."
              className="max-w-full touch-none border-[1.5px] border-edge bg-white"
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                last.current = place(event);
                ink(last.current, last.current);
              }}
              onPointerMove={(event) => {
                if (!last.current) return;
                if (!isPressed(event)) return event.currentTarget.releasePointerCapture(event.pointerId);
                const next = place(event);
                ink(last.current, next);
                last.current = next;
              }}
              onLostPointerCapture={() => {
                last.current = null;
                take();
              }}
              onKeyDown={onKey}
            />
            <span
              aria-hidden
              className="pointer-events-none absolute size-3 -translate-x-1/2 -translate-y-1/2 border-2 border-accent"
              style={{ left: `${(pen.x / STEPS) * 100}%`, top: `${(pen.y / STEPS) * 100}%` }}
            />
          </div>
        )}
        <div className="flex min-w-48 grow flex-col gap-3">
          <p>How it will look:</p>
          <div className="flex items-end gap-3">
            <Chip line={shown} shape={shape} size={96} />
            <Chip line={shown} shape={shape} size={36} />
          </div>
          {fault && <Notice kind="fault">{fault}</Notice>}
          <button
            type="button"
            className="button"
            onClick={() => {
              setByPicture(!byPicture);
              setPath(null);
            }}
          >
            {byPicture ? 'Draw it by hand' : 'Cut it out of a picture'}
          </button>
          {!byPicture && (
            <button type="button" className="button" onClick={clear}>
              Clear the pad
            </button>
          )}
          {line.drawing !== undefined && (
            <button type="button" className="button" onClick={() => onKeep(null)}>
              Back to the printed symbol
            </button>
          )}
          <button
            type="button"
            className="button button-main"
            disabled={path === null}
            onClick={() => onKeep(path)}
          >
            Use it everywhere
          </button>
        </div>
      </div>
    </Dialog>
  );
}

/** The pad brought down to the raster that is traced. */
function padInk(pad: HTMLCanvasElement): Float32Array {
  const small = document.createElement('canvas');
  small.width = DRAWING_SIDE;
  small.height = DRAWING_SIDE;
  const context = small.getContext('2d')!;
  context.drawImage(pad, 0, 0, DRAWING_SIDE, DRAWING_SIDE);
  const { data } = context.getImageData(0, 0, DRAWING_SIDE, DRAWING_SIDE);
  return Float32Array.from({ length: DRAWING_SIDE ** 2 }, (_, i) => data[i * 4 + 3]! / 255);
}
