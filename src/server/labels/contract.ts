import { LABEL_CHOICES, type LabelChoice } from '../../core/labels/chosen';
import { faultInSheet, LABEL_FORMATS, type LabelFormat, type LabelSheet } from '../../core/labels/sheet';
import { PAPER_NAMES } from '../../core/print/paper';
import { boolean, number, object, string } from '../http/schema';

const mm = (what: string, least: number, most: number) =>
  number()
    .typeError(`Give the ${what} in millimetres.`)
    .required(`Give the ${what} in millimetres.`)
    .min(least, `The ${what} must be between ${least} and ${most} mm.`)
    .max(most, `The ${what} must be between ${least} and ${most} mm.`);
const count = (what: string) =>
  number()
    .typeError(`Give the number of ${what}.`)
    .required(`Give the number of ${what}.`)
    .integer(`The number of ${what} must be whole.`)
    .min(1, `There is at least one of the ${what}.`)
    .max(60, `There are at most 60 ${what}.`);

export const labelSheetSchema = object({
  paper: string().oneOf(PAPER_NAMES, 'Choose a paper.').required('Choose a paper.'),
  columns: count('columns'),
  rows: count('rows'),
  labelWidthMm: mm('width of a label', 8, 300),
  labelHeightMm: mm('height of a label', 5, 300),
  gapXMm: mm('gap between columns', 0, 100),
  gapYMm: mm('gap between rows', 0, 100),
  marginLeftMm: mm('left margin', 0, 200),
  marginTopMm: mm('upper margin', 0, 200),
  printerOffXMm: mm('printer’s error from the left', -20, 20).default(0),
  printerOffYMm: mm('printer’s error from the top', -20, 20).default(0),
  cutMarks: boolean().default(true),
  qr: boolean().default(true),
})
  .noUnknown()
  .test('fits', (sheet, context) => {
    // Without a paper there is nothing to fit on; that fault has its own words.
    const fault = sheet.paper ? faultInSheet(sheet as LabelSheet) : null;
    return fault === null || context.createError({ message: fault });
  });

/** What no font here has. */
export interface UnprintableView {
  /** In words: `the name of 310`. */
  parts: string[];
  /** What a print will leave out; null where it leaves out nothing. */
  sentence: string | null;
}

export const labelsQuery = object({
  format: string()
    .oneOf(LABEL_FORMATS, `The format is one of ${LABEL_FORMATS.join(', ')}.`)
    .default('pots'),
  which: string().oneOf(LABEL_CHOICES, 'Print labels for all, pots, bags or leftovers.').default('all'),
  /** First place of the first sheet that is still free. */
  start: number()
    .typeError('Give the first free place as a number.')
    .integer()
    .min(1, 'Places are counted from 1.')
    .max(3600)
    .default(1),
  page: number().integer().min(1).default(1),
  /** Only these colours: codes, key numbers or places, parted by commas, or from one to another. */
  colours: string().max(2000, 'Name fewer colours at once.').default(''),
  /** Address in the QR codes; without it, the one that the page was asked under. */
  address: string()
    .max(60, 'The address for the QR codes has at most 60 characters.')
    .test(
      'address',
      'The address for the QR codes is written like http://192.168.1.20:4321.',
      (address) => !address || /^https?:\/\/[a-z0-9.[\]:-]+$/i.test(address),
    )
    .default(''),
});

export const testPageQuery = object({
  paper: string().oneOf(PAPER_NAMES, 'Choose a paper.').default('a4'),
});

/** What the label page starts from. */
export interface LabelsView {
  sheets: Record<LabelFormat, LabelSheet>;
  /** Labels of each choice. */
  counts: Record<LabelChoice, number>;
  /** Lines whose leftovers lie in the stash. */
  leftovers: number[];
}
