import { array, number, object } from 'yup';
import type { Panel, PanelPlan } from '../../core/chart/panels';

const cuts = array(
  number().typeError('A cut is a number of cells.').integer('A cut lies between whole cells.').required(),
).required('Say where it is cut.');
const reach = number()
  .typeError('Give your reach in centimetres.')
  .min(5, 'A reach is at least 5 cm.')
  .max(500, 'A reach is at most 500 cm.')
  .nullable()
  .default(null);

export const panelPlanSchema = object({
  columnCuts: cuts,
  rowCuts: cuts,
  overlap: number()
    .typeError('Give the overlap as a number of cells.')
    .integer('The overlap is whole cells.')
    .min(0, 'The overlap cannot be less than nothing.')
    .max(50, 'An overlap is at most 50 cells.')
    .default(0),
  marginMm: number()
    .typeError('Give the margin in millimetres.')
    .min(0, 'The margin cannot be less than nothing.')
    .max(200, 'A margin is at most 200 mm.')
    .default(25),
  reachWidthCm: reach,
  reachHeightCm: reach,
}).noUnknown();

/** The panels of a canvas. */
export interface PanelsView {
  plan: PanelPlan;
  panels: Panel[];
  /** Drills that lie on two panels, because they overlap. */
  twice: number;
}
