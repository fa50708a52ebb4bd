/** All heavy work of the server, by its name: plain data in, plain data out. None of it touches the running
 * database; backups work on a copy of it. The code of each is read when it is first asked for: most threads never
 * print, and all of it together takes a second to read. */
export const TASKS = {
  acceptReading: async () => (await import('../reading/accept')).acceptReading,
  allotBoth: async () => (await import('../../core/kitup/severalPots')).allotBoth,
  backUp: async () => (await import('../backups/work')).backUp,
  chartFile: async () => (await import('../chart/chartFiles')).chartFile,
  chartKind: async () => (await import('../chart/kind')).chartKind,
  checkedPieces: async () => (await import('../sections/judged')).checkedPieces,
  checkSource: async () => (await import('../backups/work')).checkSource,
  checkSymbols: async () => (await import('../symbols/lookAlikes')).checkSymbols,
  chartPdf: async () => (await import('../chart/print')).chartPdf,
  clothPng: async () => (await import('../chart/chartFiles')).clothPng,
  comparedTips: async () => (await import('../placing/search')).comparedTips,
  coverPlanPdf: async () => (await import('../sections/print')).coverPlanPdf,
  dayChanges: async () => (await import('../../core/progress/work')).dayChanges,
  drawingPdf: async () => (await import('../print/drawingPdf')).drawingPdf,
  judgedSections: async () => (await import('../sections/judged')).judgedSections,
  lastWalk: async () => (await import('../../core/finish/lastWalk')).lastWalk,
  labelsPdf: async () => (await import('../labels/print')).labelsPdf,
  labelsSvg: async () => (await import('../labels/print')).labelsSvg,
  logPdf: async () => (await import('../finish/print')).logPdf,
  lookAlikes: async () => (await import('../symbols/lookAlikes')).lookAlikes,
  packArchive: async () => (await import('../archive/pack')).packArchive,
  photoToJpeg: async () => (await import('../files/pixels')).photoToJpeg,
  placementsJson: async () => (await import('../placing/search')).placementsJson,
  placingPdf: async () => (await import('../placing/print')).placingPdf,
  progressWork: async () => (await import('../../core/progress/work')).progressWork,
  proposedSections: async () => (await import('../sections/judged')).proposedSections,
  pullListPdf: async () => (await import('../sections/print')).pullListPdf,
  readArchive: async () => (await import('../archive/unpack')).readArchive,
  readChart: async () => (await import('../chart/readChart')).readChart,
  readingPhoto: async () => (await import('../reading/photo')).readingPhoto,
  readSheetFile: async () => (await import('../checkin/sheetFile')).readSheetFile,
  readSheetPhoto: async () => (await import('../reading/sheetPhoto')).readSheetPhoto,
  readyEverything: async () => (await import('../backups/work')).readyEverything,
  requestPdf: async () => (await import('../requests/requestPdf')).requestPdf,
  sectionMapPdf: async () => (await import('../sections/print')).sectionMapPdf,
  simulatedPhoto: async () => (await import('../reading/simulated')).simulatedPhoto,
  simulatedSheet: async () => (await import('../reading/simulatedSheet')).simulatedSheet,
  sittingEfforts: async () => (await import('../sections/sittingEfforts')).sittingEfforts,
  stitchReading: async () => (await import('../stitches/reading')).stitchReading,
  unprintable: async () => (await import('../print/outlines')).unprintable,
  writeSpreadsheet: async () => (await import('../files/spreadsheet')).writeSpreadsheet,
} as const;

export type TaskName = keyof typeof TASKS;
type Task<Name extends TaskName> = Awaited<ReturnType<(typeof TASKS)[Name]>>;
export type TaskInput<Name extends TaskName> = Parameters<Task<Name>>[0];
export type TaskOutput<Name extends TaskName> = Awaited<ReturnType<Task<Name>>>;
