import { type KeyboardEvent, type PointerEvent, useEffect, useMemo, useRef } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import type { CellRect } from '../../core/cells/chart';
import { overlapOf } from '../../core/cells/rect';
import { sectionByKey } from '../../core/sections/next';
import { outlineOf, roomiestRect } from '../../core/sections/outline';
import { type SectionTally, sectionAt } from '../../core/sections/section';
import { sectionInWords } from '../../core/sections/sectionsInWords';
import { counted } from '../../core/words/numbers';

const LARGEST_PX = { width: 680, height: 380 };
/** Of more sections than this the way of the work is a tangle. */
const MOST_ON_THE_WAY = 120;
/** From this size on a square section has room for its sign. */
const SIGN_PX = 14;

/**
 * All sections on a small picture of the canvas: what is laid is covered from below, what is done has a tick. One stop for
 * the Tab key; arrow keys go from section to section, Enter chooses.
 */
export function SectionMap({
  canvas,
  hasChart,
  sections,
  at,
  onAt,
  onChoose,
  conflicts,
  focused = false,
}: {
  canvas: Canvas;
  hasChart: boolean;
  sections: readonly SectionTally[];
  /** The section that is looked at. */
  at: number;
  onAt: (number: number) => void;
  onChoose: (number: number) => void;
  /** Sections in which the resting hand is in the way, where that is known. */
  conflicts?: ReadonlySet<number>;
  /** Takes the focus when it comes up. */
  focused?: boolean;
}) {
  const drawing = useRef<HTMLCanvasElement>(null);
  const pieces = useMemo(() => sections.map(({ section }) => section), [sections]);
  const scale = Math.min(LARGEST_PX.width / canvas.width, LARGEST_PX.height / canvas.height);
  const [width, height] = [canvas.width * scale, canvas.height * scale];
  const done = sections.filter(({ drills, laid }) => drills > 0 && laid === drills).length;

  useEffect(() => {
    if (focused) drawing.current?.focus();
  }, [focused]);
  useEffect(() => {
    const view = drawing.current;
    const context = view?.getContext('2d');
    if (!view || !context) return;
    const ratio = window.devicePixelRatio;
    view.width = Math.round(width * ratio);
    view.height = Math.round(height * ratio);
    context.setTransform(ratio * scale, 0, 0, ratio * scale, 0, 0);
    drawSections(context, sections, at, conflicts, 1 / scale);
  }, [sections, at, conflicts, scale, width, height]);

  const sectionUnder = ({ clientX, clientY }: PointerEvent): number | null => {
    const edge = drawing.current!.getBoundingClientRect();
    const x = Math.floor(((clientX - edge.left) / edge.width) * canvas.width);
    const y = Math.floor(((clientY - edge.top) / edge.height) * canvas.height);
    return sectionAt(pieces, x, y)?.number ?? null;
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = sectionByKey(pieces, at, event.key);
    if (step !== null) onAt(step);
    else if (event.key === 'Enter' || event.key === ' ') onChoose(at);
    else return;
    event.preventDefault();
  };
  return (
    <div className="mx-auto w-full" style={{ maxWidth: width }}>
      <div className="relative bg-cloth" style={{ aspectRatio: `${canvas.width} / ${canvas.height}` }}>
        {hasChart && (
          <img
            src={`/api/canvases/${canvas.id}/picture.png?width=640`}
            alt=""
            className="absolute inset-0 h-full w-full [image-rendering:pixelated]"
          />
        )}
        {/* biome-ignore lint/a11y/noInteractiveElementToNoninteractiveRole: the map takes arrow keys itself, which is what this role means */}
        <canvas
          ref={drawing}
          className="absolute inset-0 h-full w-full cursor-pointer"
          tabIndex={0}
          role="application"
          aria-roledescription="map"
          aria-label={`Map of ${counted(sections.length, 'section')}, ${done} done; arrow keys move, Enter chooses. ${sectionInWords(sections[at - 1]!)}`}
          onKeyDown={onKeyDown}
          onPointerMove={(event) => {
            const number = event.pointerType === 'mouse' ? sectionUnder(event) : null;
            if (number !== null && number !== at) onAt(number);
          }}
          onClick={(event) => {
            const number = sectionUnder(event as unknown as PointerEvent);
            if (number !== null) onChoose(number);
          }}
        />
      </div>
    </div>
  );
}

/** @param px one pixel of the screen, in cells */
function drawSections(
  context: CanvasRenderingContext2D,
  sections: readonly SectionTally[],
  at: number,
  conflicts: ReadonlySet<number> | undefined,
  px: number,
): void {
  const style = getComputedStyle(document.documentElement);
  const [paper, ink, accent] = ['--c-paper', '--c-ink', '--c-accent'].map((name) =>
    style.getPropertyValue(name),
  ) as [string, string, string];
  const marked = conflicts ?? NONE;
  for (const { section, drills, laid } of sections) {
    const { x, y, width, height } = section;
    const share = drills === 0 ? 0 : laid / drills;
    const filled = { x, y: y + height * (1 - share), width, height: height * share };
    context.globalAlpha = 0.82;
    context.fillStyle = paper;
    for (const rect of section.rects) {
      const part = share > 0 ? overlapOf(rect, filled) : null;
      if (part) context.fillRect(part.x, part.y, part.width, part.height);
    }
    context.globalAlpha = 1;
    strokeOutline(context, section, ink, px);
    const spot = roomiestRect(section);
    const room = Math.min(spot.width, spot.height) > SIGN_PX * px;
    if (share === 1 && room) tick(context, spot, ink, px);
    else if (marked.has(section.number) && room) exclamation(context, spot, [paper, accent], px);
  }
  if (sections.length <= MOST_ON_THE_WAY) strokeWay(context, sections, accent, px);
  const here = sections[at - 1]?.section;
  if (!here) return;
  for (const [colour, lineWidth] of [
    [paper, 6],
    [accent, 3.5],
  ] as const)
    strokeOutline(context, here, colour, lineWidth * px);
}

const NONE: ReadonlySet<number> = new Set();

function strokeOutline(
  context: CanvasRenderingContext2D,
  section: SectionTally['section'],
  colour: string,
  lineWidth: number,
): void {
  context.lineWidth = lineWidth;
  context.strokeStyle = colour;
  context.lineCap = 'square';
  context.beginPath();
  for (const { upright, at, from, to } of outlineOf(section)) {
    context.moveTo(upright ? at : from, upright ? from : at);
    context.lineTo(upright ? at : to, upright ? to : at);
  }
  context.stroke();
}

/** The way of the work, from middle to middle in turn. */
function strokeWay(
  context: CanvasRenderingContext2D,
  sections: readonly SectionTally[],
  colour: string,
  px: number,
): void {
  context.save();
  context.globalAlpha = 0.55;
  context.lineWidth = 1.2 * px;
  context.strokeStyle = colour;
  context.beginPath();
  const way = [...sections].sort((a, b) => a.section.order - b.section.order);
  way.forEach(({ section }, i) => {
    const { x, y, width, height } = roomiestRect(section);
    if (i === 0) context.moveTo(x + width / 2, y + height / 2);
    else context.lineTo(x + width / 2, y + height / 2);
  });
  context.stroke();
  context.restore();
}

/** A sign for a section in which the resting hand is in the way. */
function exclamation(
  context: CanvasRenderingContext2D,
  { x, y, width, height }: CellRect,
  [paper, accent]: readonly [string, string],
  px: number,
): void {
  const [middleX, middleY] = [x + width / 2, y + height / 2];
  context.fillStyle = paper;
  context.beginPath();
  context.arc(middleX, middleY, 9 * px, 0, 2 * Math.PI);
  context.fill();
  context.fillStyle = accent;
  context.fillRect(middleX - 1.2 * px, middleY - 6 * px, 2.4 * px, 7 * px);
  context.fillRect(middleX - 1.2 * px, middleY + 3 * px, 2.4 * px, 2.4 * px);
}

function tick(
  context: CanvasRenderingContext2D,
  { x, y, width, height }: CellRect,
  ink: string,
  px: number,
): void {
  const side = Math.min(width, height, 26 * px) / 2;
  const [left, top] = [x + width / 2 - side / 2, y + height / 2 - side / 2];
  context.beginPath();
  context.moveTo(left, top + side * 0.55);
  context.lineTo(left + side * 0.38, top + side * 0.95);
  context.lineTo(left + side, top + side * 0.08);
  context.lineWidth = 2.2 * px;
  context.strokeStyle = ink;
  context.stroke();
}
