import {
  faultInTray,
  MAX_SLOTS,
  MAX_TRAY_UNITS,
  MAX_TRAYS,
  SLOT_FORMS,
  type Tray,
} from '../../core/storage/storage';
import { array, mixed, number, object, string } from '../http/schema';

const size = (what: string, least: number, most: number) =>
  number()
    .typeError(`Give the ${what} in millimetres.`)
    .required(`Give the ${what} in millimetres.`)
    .min(least, `The ${what} must be between ${least} and ${most} mm.`)
    .max(most, `The ${what} must be between ${least} and ${most} mm.`);
const units = (what: string) =>
  number()
    .integer(`The number of ${what} must be whole.`)
    .min(1, `A tray has at least one of its ${what}.`)
    .max(MAX_TRAY_UNITS, `A tray has at most ${MAX_TRAY_UNITS} ${what}.`)
    .required(`Give the number of ${what}.`);
const slotSchema = object({
  id: string()
    .matches(/^s\d{1,6}$/, 'A slot’s id is s and a number.')
    .required(),
  x: number().integer().required(),
  y: number().integer().required(),
  width: number().integer().min(1).required(),
  height: number().integer().min(1).required(),
  form: string().oneOf(SLOT_FORMS).required(),
}).noUnknown();
const traySchema = object({
  columns: units('columns'),
  rows: units('rows'),
  unitWidthMm: size('width of a place', 5, 300),
  unitDepthMm: size('depth of a place', 5, 300),
  heightMm: size('inner height', 3, 400),
  wallMm: size('wall', 0, 20),
  slots: array(slotSchema).required(),
})
  .noUnknown()
  .test('drawn', (tray, context) => {
    const fault = tray.slots ? faultInTray(tray as Tray) : null;
    return fault === null || context.createError({ message: fault });
  });

export const storageSchema = object({
  id: string()
    .uuid('The id must be a UUID.')
    .required('A case needs an id, so that a repeated request adds nothing.'),
  name: string().trim().required('Give the case a name.').max(60, 'Keep the name to 60 characters.'),
  packingShare: number()
    .required('Give the share of a slot’s room that drills fill.')
    .min(0.1, 'Poured drills fill between a tenth and the whole of the room.')
    .max(1, 'Poured drills fill between a tenth and the whole of the room.'),
  trays: array(traySchema)
    .required('A case has at least one tray.')
    .min(1, 'A case has at least one tray.')
    .max(MAX_TRAYS, `A case has at most ${MAX_TRAYS} trays.`)
    .test('slots', `A case has at most ${MAX_SLOTS} slots.`, (trays) => {
      return trays.reduce((sum, tray) => sum + (tray.slots?.length ?? 0), 0) <= MAX_SLOTS;
    })
    .test('ids', 'Two slots have the same id.', (trays) => {
      const ids = trays.flatMap((tray) => tray.slots?.map((slot) => slot.id) ?? []);
      return new Set(ids).size === ids.length;
    }),
}).noUnknown();

/**
 * A case as it shall be, and as it was when its drawing was begun, so that nobody draws over another's. What it was is only
 * compared: a case from an older archive may be mended though it would not be taken in today.
 */
export const redrawSchema = storageSchema.shape({
  before: mixed().optional(),
});

/** A slot in use: which canvas has it. */
export interface TakenSlotView {
  storageId: string;
  slot: string;
  canvasId: string;
  title: string;
  /** Code of the colour in it; null where the colour list has none. */
  code: string | null;
}
