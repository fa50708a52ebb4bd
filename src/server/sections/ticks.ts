import type { Canvas } from '../../core/canvas/canvas';
import type { CellRect } from '../../core/cells/chart';
import { isSameRect } from '../../core/cells/rect';
import { noSuchSection } from '../../core/sections/next';
import { tickedColours } from '../../core/sections/ticks';
import { codeOf } from '../../data/canvas';
import { drillsOf } from '../../data/chart';
import type { Database, Queries } from '../../data/engine/database';
import { addTick, ticksOf } from '../../data/ticks';
import { once } from '../http/once';
import { conflict, unreadable } from '../http/problem';
import type { TicksView } from './contract';
import { sectionsOf } from './view';

/** Which colours are done in which section, on a canvas without a chart. */
export async function ticksView(queries: Queries, canvas: Canvas): Promise<TicksView> {
  const { sections } = await sectionsOf(queries, canvas);
  return { ticked: tickedColours(await ticksOf(queries, canvas.id), sections) };
}

/**
 * Ticks a colour in a section, or takes its tick away. The same request again changes nothing.
 * @param tick `around` is the rectangle around the section as it was seen
 * @throws Problem where there is a chart, no such colour or no such section, or the id is taken
 */
export async function tickColour(
  database: Database,
  canvas: Canvas,
  tick: { id: string; section: number; around?: CellRect | undefined; line: number; done: boolean },
): Promise<void> {
  const { id, section, around, line, done } = tick;
  const request = { id, what: 'tick', canvasId: canvas.id, content: { section, line, done } };
  await once(database, request, async (queries) => {
    const { sections } = await sectionsOf(queries, canvas);
    const piece = sections[section - 1];
    if (!piece) throw unreadable(noSuchSection(section, sections.length));
    if (around && !isSameRect(around, piece)) {
      throw conflict('The canvas was cut again meanwhile, and this section is another part of it now.');
    }
    if ((await drillsOf(queries, canvas.id)) !== null) {
      throw conflict('This canvas has a chart now: its squares are marked one by one at the bench.');
    }
    if ((await codeOf(queries, canvas.id, line)) === null) {
      throw conflict('The colour list no longer has this colour.');
    }
    await addTick(queries, canvas.id, id, { rects: piece.rects, line, done }, new Date().toISOString());
  });
}
