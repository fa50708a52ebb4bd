import type { Canvas } from '../../core/canvas/canvas';
import { type InFront, inFrontInWords, leftIn } from '../../core/sections/inFront';
import { stretchOf } from '../../data/bench';
import { codeOf } from '../../data/canvas';
import type { Queries } from '../../data/engine/database';
import { sectionsOf } from './view';

/** Where work on a canvas goes on, in words, with what is left there; null where its sections were cut otherwise since. */
export async function goesOnAt(queries: Queries, canvas: Canvas, front: InFront): Promise<string | null> {
  const section = (await sectionsOf(queries, canvas)).sections[front.section - 1];
  if (!section) return null;
  const first = section.y * canvas.width + section.x;
  const last = (section.y + section.height - 1) * canvas.width + section.x + section.width - 1;
  const ground = await stretchOf(queries, canvas.id, first, last, canvas.width * canvas.height);
  const code = front.line === null ? null : await codeOf(queries, canvas.id, front.line);
  return inFrontInWords(section.number, code, leftIn(ground, section, canvas.width, front.line));
}
