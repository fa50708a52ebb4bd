import { allotBoth } from '../../core/kitup/severalPots';
import { packArchive } from '../archive/pack';
import { readArchive } from '../archive/unpack';
import { chartFile, chartPdf, clothPng } from '../chart/chartFiles';
import { chartKind } from '../chart/kind';
import { readChart } from '../chart/readChart';
import { readSheetFile } from '../checkin/sheetFile';
import { writeSpreadsheet } from '../files/spreadsheet';
import { labelsPdf, labelsSvg } from '../labels/print';
import { drawingPdf } from '../print/drawingPdf';
import { unprintable } from '../print/outlines';
import { requestPdf } from '../requests/requestPdf';
import { stitchReading } from '../stitches/reading';
import { checkSymbols, lookAlikes } from '../symbols/lookAlikes';

/** All heavy work of the server, by its name: plain data in, plain data out; none of it knows the database. */
export const TASKS = {
  allotBoth,
  chartFile,
  chartKind,
  checkSymbols,
  chartPdf,
  clothPng,
  drawingPdf,
  labelsPdf,
  labelsSvg,
  lookAlikes,
  packArchive,
  readArchive,
  readChart,
  readSheetFile,
  requestPdf,
  stitchReading,
  unprintable,
  writeSpreadsheet,
} as const;

export type TaskName = keyof typeof TASKS;
export type TaskInput<Name extends TaskName> = Parameters<(typeof TASKS)[Name]>[0];
export type TaskOutput<Name extends TaskName> = Awaited<ReturnType<(typeof TASKS)[Name]>>;
