import { lastWalk } from '../../core/finish/lastWalk';
import { allotBoth } from '../../core/kitup/severalPots';
import { dayChanges, progressWork } from '../../core/progress/work';
import { packArchive } from '../archive/pack';
import { readArchive } from '../archive/unpack';
import { backUp, checkSource, readyEverything } from '../backups/work';
import { chartFile, chartPdf, clothPng } from '../chart/chartFiles';
import { chartKind } from '../chart/kind';
import { readChart } from '../chart/readChart';
import { readSheetFile } from '../checkin/sheetFile';
import { photoToJpeg } from '../files/pixels';
import { writeSpreadsheet } from '../files/spreadsheet';
import { logPdf } from '../finish/print';
import { labelsPdf, labelsSvg } from '../labels/print';
import { comparedTips, placementsJson, placingPdf } from '../placing/search';
import { drawingPdf } from '../print/drawingPdf';
import { unprintable } from '../print/outlines';
import { acceptReading } from '../reading/accept';
import { readingPhoto } from '../reading/photo';
import { readSheetPhoto } from '../reading/sheetPhoto';
import { simulatedPhoto } from '../reading/simulated';
import { simulatedSheet } from '../reading/simulatedSheet';
import { requestPdf } from '../requests/requestPdf';
import { checkedPieces, judgedSections, proposedSections } from '../sections/judged';
import { coverPlanPdf, pullListPdf, sectionMapPdf } from '../sections/print';
import { sittingEfforts } from '../sections/sittingEfforts';
import { stitchReading } from '../stitches/reading';
import { checkSymbols, lookAlikes } from '../symbols/lookAlikes';

/** All heavy work of the server, by its name: plain data in, plain data out. None of it touches the running
 * database; backups work on a copy of it. */
export const TASKS = {
  acceptReading,
  allotBoth,
  backUp,
  chartFile,
  chartKind,
  checkedPieces,
  checkSource,
  checkSymbols,
  chartPdf,
  clothPng,
  comparedTips,
  coverPlanPdf,
  dayChanges,
  drawingPdf,
  judgedSections,
  lastWalk,
  labelsPdf,
  labelsSvg,
  logPdf,
  lookAlikes,
  packArchive,
  photoToJpeg,
  placementsJson,
  placingPdf,
  progressWork,
  proposedSections,
  pullListPdf,
  readArchive,
  readChart,
  readingPhoto,
  readSheetFile,
  readSheetPhoto,
  readyEverything,
  requestPdf,
  sectionMapPdf,
  simulatedPhoto,
  simulatedSheet,
  sittingEfforts,
  stitchReading,
  unprintable,
  writeSpreadsheet,
} as const;

export type TaskName = keyof typeof TASKS;
export type TaskInput<Name extends TaskName> = Parameters<(typeof TASKS)[Name]>[0];
export type TaskOutput<Name extends TaskName> = Awaited<ReturnType<(typeof TASKS)[Name]>>;
