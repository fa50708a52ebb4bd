import { useGesture } from '@use-gesture/react';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import type { Shape } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import type { CellRect, Chart } from '../../core/cells/chart';
import type { CellPlace } from '../../core/cells/rect';
import { cellsOnTheWay } from '../../core/cells/stroke';
import {
  type Camera,
  cellAt,
  crispScale,
  fitCamera,
  followRect,
  keepInSight,
  panBy,
  reveal,
  type ViewSize,
  zoomAbout,
} from '../../core/view/camera';
import { arrowStep } from '../arrowKeys';
import { Maximize, Minus, Plus } from '../icons';
import { keyMeant } from '../keyMeant';
import { isForThePicture } from '../keysOutside';
import { isPressed } from '../pressed';
import { ClothRenderer, type ClothWish } from './ClothRenderer';
import { type ClothEyes, readPalette, USUAL_EYES } from './clothPalette';
import { CODE_FONT, SYMBOL_FONTS } from './drillSprites';
import { IdleTiling } from './idleTiling';
import { keepView, keptView } from './keptView';
import { cursorLayer, type Layer, type Ruler, rulerLayer } from './layers';
import { type Touch, TouchHand } from './touchHand';

/** Marking by hand: a press begins, a drag goes on, letting go ends; what is aborted leaves nothing behind. */
export interface Marking {
  /** @param held the hand rested there first */
  begin(place: CellPlace, held: boolean): void;
  extend(places: CellPlace[]): void;
  end(): void;
  abort(): void;
}

export interface ClothProps {
  label: string;
  chart: Chart;
  hasChart: boolean;
  legend: readonly LegendLine[];
  shape: Shape;
  wish: ClothWish;
  layers?: readonly Layer[];
  /** Counts cells unless another unit is given. */
  ruler?: Ruler;
  /** What the view shows at first, and again when it changes. */
  frame: CellRect;
  cursor: CellPlace | null;
  onCursor(place: CellPlace): void;
  onHover?(place: CellPlace | null): void;
  /** A tap or click that was no drag. */
  onPick?(place: CellPlace): void;
  /** Given: a tap marks, a drag after a short hold too, a swipe moves the picture. Absent: any drag moves it. */
  marking?: Marking | null;
  /** Keys that the station adds; true when it took the key. */
  onKey?(event: Pick<KeyboardEvent, 'key' | 'repeat' | 'shiftKey'>): boolean;
  /** What stands at a square, for the ear. */
  say?(place: CellPlace): string;
  eyes?: ClothEyes;
  /** What is worked on, where the view shall move along with it; null leaves it where the hand has it. */
  follow?: CellRect | null;
  /** For a hand that trembles: a longer press, and nothing is marked by dragging. */
  tremor?: boolean;
  /** Under this name the view is found again when the page is opened anew. */
  keptAs?: string;
}

/** What is followed has squares of at least so many pixels, larger ones where symbols are. */
const FOLLOWED_PX = { usual: 20, large: 30 };

/** A page finds its layout within this time after it was opened, if no hand is faster. */
const SETTLES_MS = 3000;
/** After this long without movement cells come to whole pixels. */
const REST_MS = 120;

/** The canvas on the bench: a chart that pans, zooms and can be marked. All drawing goes through typed arrays. */
export function Cloth(props: ClothProps) {
  const { chart, legend, shape, wish, layers, frame, cursor, hasChart, eyes = USUAL_EYES, keptAs } = props;
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const camera = useRef<Camera>({ scale: 1, left: 0, top: 0 });
  const size = useRef<ViewSize>({ width: 0, height: 0 });
  const asked = useRef(0);
  const atRest = useRef<ReturnType<typeof setTimeout>>(undefined);
  const lastMarked = useRef<CellPlace | null>(null);
  const at = (clientX: number, clientY: number) => {
    const edge = canvas.current!.getBoundingClientRect();
    return { px: clientX - edge.left, py: clientY - edge.top };
  };
  /** The square under a point of the page; none outside of the view. */
  const placeUnder = (clientX: number, clientY: number): CellPlace | null => {
    const { px, py } = at(clientX, clientY);
    const inView = px >= 0 && py >= 0 && px < size.current.width && py < size.current.height;
    return inView ? cellAt(camera.current, px, py, chart) : null;
  };
  const hand = useRef<TouchHand>(null);
  const latest = useRef({ ...props, placeUnder });
  latest.current = { ...props, placeUnder };

  const renderer = useMemo(
    () => new ClothRenderer(chart, readPalette(legend, hasChart, eyes), shape),
    [chart, legend, hasChart, shape, eyes],
  );

  /**
   * The renderer that has its picture. Whoever asks for a frame, by a timer or between frames, gets this one: a frame by
   * one that was replaced meanwhile would stay, for nobody makes tiles for that.
   */
  const present = useRef(renderer);
  const redrawAgain = useRef<() => void>(() => {});
  const tiling = useRef(new IdleTiling());
  const redraw = useCallback(() => {
    if (asked.current) return;
    asked.current = requestAnimationFrame(() => {
      asked.current = 0;
      const context = canvas.current?.getContext('2d');
      if (!context) return;
      const now = latest.current;
      present.current.draw(context, camera.current, size.current, window.devicePixelRatio);
      const style = getComputedStyle(document.documentElement);
      const over = [...(now.layers ?? [])];
      if (now.cursor) over.push(cursorLayer(now.cursor.x, now.cursor.y));
      over.push(
        rulerLayer(
          now.chart,
          { ink: style.getPropertyValue('--c-faded'), paper: style.getPropertyValue('--c-paper') },
          now.ruler,
        ),
      );
      for (const layer of over) layer(context, camera.current, size.current);
      tiling.current.afterFrame(
        () => present.current,
        () => redrawAgain.current(),
      );
    });
  }, []);

  redrawAgain.current = redraw;
  useEffect(() => () => tiling.current.stop(), []);

  /** No farther away than half the size at which the whole cloth fits. */
  const leastScale = useCallback(() => {
    const whole = { x: 0, y: 0, width: latest.current.chart.width, height: latest.current.chart.height };
    return fitCamera(whole, size.current).scale * 0.5;
  }, []);

  /** Whether a hand has moved the view since the frame was shown; until then the frame stays whole whatever the size. */
  const moved = useRef(false);
  /** Whether a hand has touched a square, and may touch beside it next. */
  const touched = useRef(false);
  const look = useCallback(
    (next: Camera) => {
      moved.current = true;
      camera.current = keepInSight(next, latest.current.chart, size.current);
      clearTimeout(atRest.current);
      atRest.current = setTimeout(() => {
        const { width, height } = size.current;
        const { scale } = camera.current;
        const crisp = zoomAbout(camera.current, crispScale(scale) / scale, width / 2, height / 2, 0);
        camera.current = keepInSight(crisp, latest.current.chart, size.current);
        keepView(latest.current.keptAs, moved.current ? camera.current : null, size.current);
        redraw();
      }, REST_MS);
      redraw();
    },
    [redraw],
  );
  const zoom = useCallback(
    (factor: number, px = size.current.width / 2, py = size.current.height / 2) =>
      look(zoomAbout(camera.current, factor, px, py, leastScale())),
    [look, leastScale],
  );
  const showFrame = useCallback(() => {
    look(fitCamera(latest.current.frame, size.current, 34));
    moved.current = false;
  }, [look]);

  useEffect(() => {
    renderer.setWish(wish);
    present.current = renderer;
    redraw();
  }, [renderer, wish, redraw]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: a redraw is due whenever one of these changes
  useEffect(redraw, [layers, cursor, props.ruler, redraw]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: the numbers say whether the frame has really moved
  useEffect(() => {
    const kept = keptView(keptAs, size.current);
    if (kept) look(kept);
    else showFrame();
  }, [frame.x, frame.y, frame.width, frame.height, showFrame]);

  const { follow } = props;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the numbers say whether it has really moved
  useEffect(() => {
    // Nothing moves from under a hand.
    if (!follow || size.current.width === 0 || hand.current?.isDown) return;
    const wasMoved = moved.current;
    look(followRect(camera.current, follow, size.current, FOLLOWED_PX[eyes.symbols]));
    moved.current = wasMoved;
  }, [follow?.x, follow?.y, follow?.width, follow?.height]);

  useEffect(() => {
    const repaint = () => {
      renderer.setPalette(readPalette(legend, hasChart, eyes));
      redraw();
    };
    window.addEventListener('oculent-theme', repaint);
    // All fonts that know a sign would be loaded for it, and the first one has these.
    const others = readPalette(legend, hasChart, eyes).symbols.join('').replace(/[ -~]/g, '');
    const load = (fonts: string, text: string) => document.fonts.load(`600 20px ${fonts}`, text);
    // Without them the system draws symbols its own way.
    void Promise.all([load(CODE_FONT, 'A'), load(SYMBOL_FONTS, others)]).then(
      () => {
        renderer.redrawSymbols();
        redraw();
      },
      () => undefined,
    );
    return () => window.removeEventListener('oculent-theme', repaint);
  }, [renderer, legend, hasChart, eyes, redraw]);

  useEffect(() => {
    const holder = box.current;
    const view = canvas.current;
    if (!holder || !view) return;
    const opened = performance.now();
    const measure = () => {
      const wider = holder.clientWidth !== size.current.width;
      size.current = { width: holder.clientWidth, height: holder.clientHeight };
      view.width = Math.round(size.current.width * window.devicePixelRatio);
      view.height = Math.round(size.current.height * window.devicePixelRatio);
      // A line of words that comes up later must not move squares from under a hand.
      const settles = !touched.current && performance.now() - opened < SETTLES_MS;
      if (!moved.current && (wider || settles)) {
        const kept = keptView(latest.current.keptAs, size.current);
        if (kept) look(kept);
        else showFrame();
      }
      redraw();
    };
    const observer = new ResizeObserver(measure);
    observer.observe(holder);
    return () => observer.disconnect();
  }, [redraw, showFrame, look]);

  const cellUnder = (clientX: number, clientY: number) => {
    const { px, py } = at(clientX, clientY);
    return cellAt(camera.current, px, py, chart);
  };

  useGesture(
    {
      onDrag: ({ delta: [dx, dy], xy: [x, y], tap, pinching, cancel, event }) => {
        if (pinching) return cancel();
        // The hand on a cloth that is marked is told apart by itself; only the middle button moves it like this.
        if (latest.current.marking && (event as PointerEvent).buttons !== 4) return;
        look(panBy(camera.current, dx, dy));
        if (tap) pick(cellUnder(x, y));
      },
      onPinch: ({ origin: [x, y], delta: [step], first, memo, offset: [scale] }) => {
        const before = first ? scale - step : (memo as number);
        const { px, py } = at(x, y);
        zoom(scale / before, px, py);
        return scale;
      },
      onWheel: ({ event, ctrlKey, last }) => {
        // The end of a turn comes a moment later, with its last event once more.
        if (ctrlKey || last) return;
        event.preventDefault();
        const { px, py } = at(event.clientX, event.clientY);
        zoom(Math.exp(-event.deltaY * (event.deltaMode === 1 ? 0.05 : 0.0016)), px, py);
      },
      onMove: ({ xy: [x, y] }) => latest.current.onHover?.(cellUnder(x, y)),
      onHover: ({ hovering }) => {
        if (!hovering) latest.current.onHover?.(null);
      },
    },
    {
      target: canvas,
      eventOptions: { passive: false },
      drag: { filterTaps: true, pointer: { buttons: [1, 4], keys: false } },
      pinch: { pinchOnWheel: true, scaleBounds: { min: 0.001, max: 1000 } },
    },
  );

  const lookNow = useRef(look);
  lookNow.current = look;
  const pressed = useRef({ x: 0, y: 0 });
  hand.current ??= new TouchHand({
    begin: (held) => {
      const place = latest.current.placeUnder(pressed.current.x, pressed.current.y);
      lastMarked.current = place;
      if (!place) return;
      latest.current.onCursor(place);
      latest.current.marking?.begin(place, held);
      if (held) navigator.vibrate?.(12);
    },
    extend: (x, y) => {
      const place = latest.current.placeUnder(x, y);
      // Outside nothing is touched; where the hand comes back, the mark goes on from there.
      if (place) latest.current.marking?.extend(onTheWay(lastMarked.current, place));
      lastMarked.current = place;
    },
    end: () => latest.current.marking?.end(),
    abort: () => latest.current.marking?.abort(),
    pan: (dx, dy) => lookNow.current(panBy(camera.current, dx, dy)),
  });
  hand.current.setTremor(props.tremor ?? false);
  const isMarked = props.marking !== undefined && props.marking !== null;
  useEffect(() => {
    const view = canvas.current;
    if (!view || !isMarked) return;
    const touchOf = (event: PointerEvent): Touch => ({
      id: event.pointerId,
      x: event.clientX,
      y: event.clientY,
      kind: event.pointerType === 'mouse' || event.pointerType === 'pen' ? event.pointerType : 'touch',
      contact: Math.max(event.width, event.height),
      at: event.timeStamp,
    });
    const onDown = (event: PointerEvent) => {
      if (event.button !== 0) return;
      touched.current = true;
      view.setPointerCapture(event.pointerId);
      pressed.current = { x: event.clientX, y: event.clientY };
      hand.current!.press(touchOf(event));
    };
    const onMove = (event: PointerEvent) => {
      // Whoever lets go over another window is not heard to.
      if (isPressed(event)) hand.current!.move(touchOf(event));
      else hand.current!.release({ id: event.pointerId });
    };
    const onUp = (event: PointerEvent) => hand.current!.release({ id: event.pointerId });
    const onCancel = (event: PointerEvent) => hand.current!.cancel({ id: event.pointerId });
    view.addEventListener('pointerdown', onDown);
    view.addEventListener('pointermove', onMove);
    view.addEventListener('pointerup', onUp);
    view.addEventListener('pointercancel', onCancel);
    return () => {
      view.removeEventListener('pointerdown', onDown);
      view.removeEventListener('pointermove', onMove);
      view.removeEventListener('pointerup', onUp);
      view.removeEventListener('pointercancel', onCancel);
    };
  }, [isMarked]);

  const pick = (place: CellPlace | null) => {
    if (!place) return;
    latest.current.onCursor(place);
    latest.current.onPick?.(place);
  };

  const onKeyDown = (event: Pick<KeyboardEvent, 'key' | 'repeat' | 'shiftKey' | 'preventDefault'>) => {
    if (event.key === 'Escape' && hand.current?.giveUp()) return event.preventDefault();
    if (props.onKey?.(event)) return event.preventDefault();
    const arrow = arrowStep(event.key);
    if (arrow && event.shiftKey) {
      look(
        panBy(camera.current, (-arrow[0] * size.current.width) / 5, (-arrow[1] * size.current.height) / 5),
      );
    } else if (arrow) {
      const from = cursor ?? {
        x: Math.floor(frame.x + frame.width / 2),
        y: Math.floor(frame.y + frame.height / 2),
      };
      const x = Math.min(chart.width - 1, Math.max(0, from.x + arrow[0]));
      const y = Math.min(chart.height - 1, Math.max(0, from.y + arrow[1]));
      props.onCursor({ x, y });
      look(reveal(camera.current, x, y, size.current));
    } else if (event.key === '+' || event.key === '=') zoom(1.4);
    else if (event.key === '-' || event.key === '−') zoom(1 / 1.4);
    else if (event.key === '0') showFrame();
    else if (event.key === 'Enter' && cursor) props.onPick?.(cursor);
    else return;
    event.preventDefault();
  };

  const pressedKey = useRef(onKeyDown);
  pressedKey.current = onKeyDown;
  // With the squares themselves: an effect that comes after the drawing misses a key that is pressed at their sight.
  useLayoutEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const own = event.target === canvas.current && !event.ctrlKey && !event.metaKey && !event.altKey;
      if (!own && !isForThePicture(event)) return;
      pressedKey.current({
        key: keyMeant(event),
        repeat: event.repeat,
        shiftKey: event.shiftKey,
        preventDefault: () => event.preventDefault(),
      });
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);

  return (
    // The buttons stand beside the canvas: nothing lies over squares that are to be laid.
    <div className="flex min-h-0 grow flex-col gap-1.5 sm:flex-row">
      <div ref={box} className="relative min-h-[21rem] min-w-0 grow overflow-hidden bg-bench sm:min-h-0">
        <p className="sr-only" aria-live="polite" data-testid="square">
          {cursor && props.say?.(cursor)}
        </p>
        {/* biome-ignore lint/a11y/noInteractiveElementToNoninteractiveRole: the canvas takes arrow keys itself, which is what this role means */}
        <canvas
          ref={canvas}
          className={`absolute inset-0 h-full w-full touch-none ${props.marking ? 'cursor-crosshair' : 'cursor-grab'}`}
          tabIndex={0}
          role="application"
          aria-roledescription="canvas"
          aria-label={props.label}
        />
      </div>
      <div className="flex shrink-0 justify-end gap-1.5 sm:flex-col">
        <ZoomButton words="Nearer" onClick={() => zoom(1.4)} icon={<Plus size={20} aria-hidden />} />
        <ZoomButton words="Farther" onClick={() => zoom(1 / 1.4)} icon={<Minus size={20} aria-hidden />} />
        <ZoomButton words="Show all of it" onClick={showFrame} icon={<Maximize size={20} aria-hidden />} />
      </div>
    </div>
  );
}

/** The squares from one to another, the first left out; from nowhere, the other alone. */
function onTheWay(from: CellPlace | null, to: CellPlace): CellPlace[] {
  return from ? cellsOnTheWay(from, to) : [to];
}

function ZoomButton({ words, onClick, icon }: { words: string; onClick: () => void; icon: React.ReactNode }) {
  return (
    <button type="button" className="button !px-2.5" onClick={onClick} title={words} aria-label={words}>
      {icon}
    </button>
  );
}
