import type { Canvas } from '../../core/canvas/canvas';
import { highestLine } from '../../core/canvas/legend';
import { type BlockSize, cutIntoBlocks, type Section, tallySections } from '../../core/sections/blockGrid';
import { many } from '../../core/words/numbers';
import { bitmapOf } from '../../data/bench';
import { legendOf } from '../../data/canvas';
import type { Queries } from '../../data/engine/database';
import { blockSizeOf } from '../../data/sections';
import { chartOrCloth } from '../chart/view';
import type { SectionsView } from './contract';

const MAX_SECTIONS = 20_000;

/** The sections of a canvas under its chosen block size. */
export async function sectionsOf(
  queries: Queries,
  canvas: Canvas,
): Promise<{ block: BlockSize; sections: Section[] }> {
  const block = await blockSizeOf(queries, canvas.id);
  return { block, sections: cutIntoBlocks(canvas, canvas.panels, block) };
}

export async function sectionsView(queries: Queries, canvas: Canvas): Promise<SectionsView> {
  const { block, sections } = await sectionsOf(queries, canvas);
  const chart = await chartOrCloth(queries, canvas);
  const laid = await bitmapOf(queries, canvas.id, chart.cells.length);
  const lines = Math.max(1, highestLine(await legendOf(queries, canvas.id)));
  return { block, sections: tallySections(chart, laid, sections, lines) };
}

/** Why a block size would cut a canvas into too many pieces; null when it is well. */
export function faultInBlock(canvas: Canvas, block: BlockSize): string | null {
  const count = Math.ceil(canvas.width / block.columns) * Math.ceil(canvas.height / block.rows);
  return count > MAX_SECTIONS
    ? `This would cut the canvas into ${many(count)} sections. Choose a larger size.`
    : null;
}
