import { type LegendLine, MAX_LEGEND_LINES } from '../../core/canvas/legend';
import type { UndoView } from '../../core/ledger/history';
import { canvasFacts, wishedColourSchema } from '../canvas/contract';
import { array, object, string } from '../http/schema';

const ledgerId = string().uuid('The id must be a UUID.');

/** A colour list that takes the place of the one before. */
export const colourListSchema = object({
  /** Names the correction, so that a repeated request changes nothing. */
  id: ledgerId.optional(),
  lines: array(wishedColourSchema)
    .required('Give the colours of the list.')
    .min(1, 'A list has at least one colour.')
    .max(MAX_LEGEND_LINES, `A canvas can have at most ${MAX_LEGEND_LINES} colours.`),
  /** The `version` of the list that was looked at; where it has changed since, nothing is saved. */
  basedOn: string().max(64).nullable().default(null),
});

/**
 * Facts of a canvas to be corrected; what is left out stays. No default steps in for it, and how the facts go together
 * is checked on the whole canvas.
 */
export const canvasFactsSchema = object({
  id: ledgerId.optional(),
  title: canvasFacts.title.optional(),
  shape: canvasFacts.shape.optional(),
  pitchMm: canvasFacts.pitchMm.optional(),
  width: canvasFacts.width.optional(),
  height: canvasFacts.height.optional(),
  panels: canvasFacts.panels.default(undefined).optional(),
  symbolsPrinted: canvasFacts.symbolsPrinted.default(undefined).optional(),
  packetDrills: canvasFacts.packetDrills.default(undefined).optional(),
  bagsCarry: canvasFacts.bagsCarry.default(undefined).optional(),
}).noUnknown('There is a field that a canvas does not have.');

/** A correction to be undone or made again. */
export const correctionUndoSchema = object({
  id: ledgerId.required('An id is needed, so that a repeated request changes nothing.'),
  undoes: ledgerId.nullable().default(null),
  redoes: ledgerId.nullable().default(null),
}).test(
  'one',
  'Say which correction is undone, or which is made again.',
  ({ undoes, redoes }) => (undoes === null) !== (redoes === null),
);

/** The colour list with the name of its state. */
export interface ColourListView {
  canvasId: string;
  version: string;
  lines: LegendLine[];
}

/** A correction as it is told. */
interface ToldCorrection {
  id: string;
  /** What it changed, a few words each. */
  changes: string[];
}

export interface CorrectionsView {
  history: UndoView<ToldCorrection>;
  /** The newest first; an undo is one of them. */
  entries: (ToldCorrection & { happenedAt: string; undone: boolean })[];
}
