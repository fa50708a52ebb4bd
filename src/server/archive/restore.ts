import { setImmediate } from 'node:timers/promises';
import type { ArchiveRow } from '../../core/archive/dataPackage';
import { ARCHIVE_TABLES, POT_TABLES } from '../../core/archive/tables';
import { asCanvas } from '../../core/canvas/canvas';
import { restoreRows } from '../../data/archive';
import { putBitmap } from '../../data/bench';
import { removeCanvas, renewNextLine, setArriving, standingOfCanvas } from '../../data/canvas';
import { putChart } from '../../data/chart';
import { type Database, isDataError, type Queries } from '../../data/engine/database';
import { storagesOf, takenSlots } from '../../data/storage';
import { noteHeap } from '../checkin/heap';
import { conflict, Problem, unreadable } from '../http/problem';
import type { Job } from '../jobs/pool';
import { inWorker } from '../jobs/pool';
import type { ArchiveReport } from './contract';
import type { ReadArchive, Tables } from './unpack';

/**
 * Puts an archived canvas on the shelf, whole or not at all.
 * @param copyId where given, the canvas becomes a second one with this id, and all its rows get new ids. A copy has no
 * pots, because the drills are in them once only.
 * @throws Problem when the archive is damaged or does not fit together, or its canvas is on the shelf already
 */
export async function restoreArchive(
  database: Database,
  bytes: Uint8Array,
  copyId: string | null,
  job: Job | null = null,
): Promise<ArchiveReport> {
  const archive = await inWorker('readArchive', { bytes, copyId }, job);
  const { id, title } = archive.canvas;
  const known = await database.transaction(async (queries) => {
    const standing = await standingOfCanvas(queries, id);
    if (standing !== 'unknown') return standing;
    await restoreTable(queries, archive, 'canvas');
    await setArriving(queries, id, true);
    return null;
  });
  if (known === 'arriving') throw conflict(`${title} is being brought in already.`);
  if (known === 'leaving') throw conflict(`${title} is just being removed for good. Try again in a moment.`);
  if (known === 'deleted' && copyId === null) {
    throw conflict(
      `${title} is among the deleted canvases. Bring it back from there, or bring this in as a copy.`,
    );
  }
  if (known === 'here' || known === 'deleted') {
    // A copy that is sent again after a lost answer.
    if (copyId !== null) return { id, title, notices: [] };
    throw conflict(`${title} is on the shelf already. Bring it in as a copy, or remove the other first.`);
  }
  try {
    for (const { name } of ARCHIVE_TABLES) {
      if (name !== 'canvas' && !POT_TABLES.has(name)) await restoreTable(database, archive, name);
    }
    // Nobody sees the canvas yet, so what takes long need not be in one transaction, for which all others would wait.
    if (archive.chart) await putChart(database, id, archive.chart);
    await putBitmap(database, id, archive.laid);
    await noteHeap(database, asCanvas(archive.canvas));
    return await database.transaction((queries) => finish(queries, archive, copyId === null));
  } catch (error) {
    await removeCanvas(database, id);
    if (error instanceof Problem || !isDataError(error)) throw error;
    throw unreadable(
      'The tables of this archive do not fit together: a row points at one that is missing, stands twice, or holds a value that cannot be. Nothing was brought in.',
    );
  }
}

async function restoreTable(queries: Queries, archive: ReadArchive, name: string): Promise<void> {
  const { canvas, tables, marks } = archive;
  const table = ARCHIVE_TABLES.find((each) => each.name === name)!;
  if (name !== 'mark') return restoreRows(queries, table, canvas.id, tables.get(name)!);
  for (const part of marks) {
    await restoreRows(queries, table, canvas.id, JSON.parse(part) as ArchiveRow[]);
    await setImmediate();
  }
}

/** Pots; then the canvas is on the shelf. @param original not a copy, so that it may have its pots */
async function finish(queries: Queries, archive: ReadArchive, original: boolean): Promise<ArchiveReport> {
  const { canvas, tables } = archive;
  const withPots = original && (await potsAreFree(queries, tables));
  if (withPots) for (const name of POT_TABLES) await restoreTable(queries, archive, name);
  await renewNextLine(queries, canvas.id);
  await setArriving(queries, canvas.id, false);
  const notices =
    tables.get('kitup_plan')!.length > 0 && !withPots
      ? ['Its colours have no pots here, because each pot is filled only once. Plan them at Kit-up.']
      : [];
  return { id: canvas.id, title: canvas.title, notices };
}

/** Whether every slot that the plan names is drawn and free here. */
async function potsAreFree(queries: Queries, tables: Tables): Promise<boolean> {
  const ids = [...new Set(tables.get('allotment')!.map(({ storage_id }) => storage_id as string))];
  const here = new Map((await storagesOf(queries, ids)).map((storage) => [storage.id, storage]));
  const taken = new Set(
    (await takenSlots(queries, ids)).map(({ storageId, slot }) => `${storageId} ${slot}`),
  );
  return tables.get('allotment')!.every(({ storage_id, slot }) => {
    const storage = here.get(storage_id as string);
    const drawn = !storage || storage.trays.some((tray) => tray.slots.some(({ id }) => id === slot));
    return drawn && !taken.has(`${storage_id} ${slot}`);
  });
}
