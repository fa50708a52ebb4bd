import { randomUUID } from 'node:crypto';
import { rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { applyMark, onlyLine } from '../src/core/bench/marking';
import type { Canvas } from '../src/core/canvas/canvas';
import { emptyBitmap } from '../src/core/cells/bitmap';
import { hexToRgb, rgbToHex } from '../src/core/colour/rgb';
import { framesFor } from '../src/core/finish/frames';
import { WALK_STEPS } from '../src/core/finish/record';
import { ALLOT_GOALS } from '../src/core/kitup/allotTask';
import { STARTING_LAYOUTS, startStorage } from '../src/core/storage/drawStorage';
import { dayIn } from '../src/core/words/calendar';
import { addMark, addSitting, endSitting } from '../src/data/bench';
import { addCanvas, replaceLegend } from '../src/data/canvas';
import { putChart } from '../src/data/chart';
import { addBagEntry } from '../src/data/checkin';
import type { Database, Queries } from '../src/data/engine/database';
import { dataDirectory, openDataDirectory } from '../src/data/engine/dataDirectory';
import { DataFault } from '../src/data/engine/dataFault';
import { DirectoryInUse, takeDataLock } from '../src/data/engine/dataLock';
import { BACKUPS, DATABASE, MARKER, type Marker, standingOf, writeMarker } from '../src/data/engine/marker';
import { addPotEvent } from '../src/data/kitup';
import { digestOf } from '../src/data/once';
import { addStashItem, addStashMove } from '../src/data/stash';
import { putStorage } from '../src/data/storage';
import { noteHeap } from '../src/server/checkin/heap';
import { finishView } from '../src/server/finish/view';
import { putAwayAll, tellFinish } from '../src/server/finish/writes';
import { planKitup } from '../src/server/kitup/writes';
import { heapOf } from './heap';
import { type DemoSitting, inventHistory } from './history';
import { glasshouseKit, type Kit, kingfisherKit, lanternKit } from './kits';
import { between, seeded } from './random';

/**
 * Lays the demo data into the data directory, unless one is there. `--fresh` starts over, `--finished` does too, with the
 * canvas at work all laid and its leftovers in the stash; `--heap` prints the heap.
 */
async function lay(): Promise<void> {
  if (process.argv.includes('--heap')) return printHeap();
  const directory = dataDirectory();
  const held = takeDataLock(directory);
  try {
    const finished = process.argv.includes('--finished');
    if (finished || process.argv.includes('--fresh')) await startOver(directory);
    if ((await standingOf(directory)).kind === 'ours') return;
    console.log('Laying out the demo canvases…');
    const draft = `${directory}.new`;
    await rm(draft, { recursive: true, force: true });
    const database = await openDataDirectory(draft);
    const kits = {
      glasshouse: await glasshouseKit(),
      kingfisher: await kingfisherKit(),
      lantern: await lanternKit(),
    };
    await database.transaction((queries) => layAll(queries, kits, new Date(), finished));
    await layCases(database, kits, new Date());
    if (finished) await finish(database, kits.kingfisher);
    await database.close();
    const { marker } = (await standingOf(draft)) as { marker: Marker };
    await rename(join(draft, DATABASE), join(directory, DATABASE));
    await writeMarker(directory, { ...marker, demo: true });
    await rm(draft, { recursive: true, force: true });
  } finally {
    held.release();
  }
}

/** Throws the demo shelf away, and only that. */
async function startOver(directory: string): Promise<void> {
  const standing = await standingOf(directory);
  if (standing.kind === 'new') return;
  if (!standing.marker?.demo) {
    throw new DataFault(
      'foreign',
      `${directory} holds a shelf of your own, which --fresh would throw away. Choose another directory with OCULENT_DATA.`,
    );
  }
  for (const name of [DATABASE, MARKER, BACKUPS]) {
    await rm(join(directory, name), { recursive: true, force: true });
  }
}

interface Kits {
  glasshouse: Kit;
  kingfisher: Kit;
  lantern: Kit;
}

async function layAll(
  queries: Queries,
  { glasshouse, kingfisher, lantern }: Kits,
  now: Date,
  finished: boolean,
): Promise<void> {
  const daysAgo = (days: number) => new Date(now.getTime() - days * 86_400_000);
  await layKit(queries, glasshouse, daysAgo(120));
  await countAllBags(queries, glasshouse, daysAgo(118));
  await noteHeap(queries, glasshouse.canvas);
  await layHistory(queries, glasshouse, inventHistory(glasshouse, 0.09, 58, 112, now, seeded(5)));

  const [share, sittings, days] = finished ? ([1, 47, 86] as const) : ([0.4112, 19, 35] as const);
  await layKit(queries, kingfisher, daysAgo(days + 3));
  await countAllBags(queries, kingfisher, daysAgo(days + 2));
  await noteHeap(queries, kingfisher.canvas);
  await layHistory(queries, kingfisher, inventHistory(kingfisher, share, sittings, days, now, seeded(3)));

  await layKit(queries, lantern, now);
  await noteHeap(queries, lantern.canvas);
  await layStash(queries, kingfisher, lantern, daysAgo(1));
}

async function layKit(queries: Queries, kit: Kit, arrived: Date): Promise<void> {
  await addCanvas(queries, kit.canvas, arrived.toISOString());
  await replaceLegend(queries, kit.canvas.id, kit.legend);
  await putChart(queries, kit.canvas.id, kit.chart);
}

/** Two cases: the bottles hold the kit at work, the mixed case waits for the kit that has just arrived. */
async function layCases(database: Database, { kingfisher, lantern }: Kits, now: Date): Promise<void> {
  const own = (key: string, id: string, name: string) =>
    startStorage(id, STARTING_LAYOUTS.find((layout) => layout.key === key)!, name);
  const bottles = own('bottles', '2b7d9c14-5e80-4a36-8f21-6c0d4e9a7b01', 'Bottle case');
  const mixed = own('mixed', '2b7d9c14-5e80-4a36-8f21-6c0d4e9a7b02', 'Mixed case');
  await putStorage(database, bottles, new Date(now.getTime() - 1000).toISOString());
  await putStorage(database, mixed, now.toISOString());
  const plan = (canvas: Canvas, storageIds: string[]) =>
    planKitup(database, canvas, {
      storageIds,
      order: 'code',
      leave: 'fewest drills',
      goals: [...ALLOT_GOALS],
      several: false,
      locks: [],
    });
  const { canvas, legend } = kingfisher;
  await plan(canvas, [bottles.id]);
  for (const { line } of legend) {
    await addPotEvent(
      database,
      canvas.id,
      null,
      {
        id: randomUUID(),
        line,
        kind: 'fill',
        drills: 0,
        undoes: null,
        redoes: null,
        freed: [],
        stashMoveId: null,
      },
      now.toISOString(),
    );
  }
  await plan(lantern.canvas, [mixed.id]);
}

/** The end of a canvas: its last walk is done, it is framed, and its leftovers are in the stash. */
async function finish(database: Database, { canvas }: Kit): Promise<void> {
  const now = new Date();
  const [frame] = framesFor(canvas, 0);
  const record = {
    startedOn: null,
    finishedOn: null,
    minutes: null,
    steps: Object.fromEntries(WALK_STEPS.map(({ key }) => [key, true])),
    sealing: 'no' as const,
    borderMm: 0,
    frame: frame ? { widthMm: frame.widthMm, heightMm: frame.heightMm } : null,
    notes:
      'For the hall, beside the window. The reeds went quicker than I thought; the sky was all confetti.',
  };
  await tellFinish(database, canvas, { id: randomUUID(), ...record }, dayIn('UTC', now));
  const { leftovers } = await finishView(database, canvas, 'UTC');
  const colours = leftovers.map(({ line, left }) => ({ line, drills: left }));
  await putAwayAll(database, canvas, { id: randomUUID(), colours }, null);
}

/** Leftovers of finished kits; some of them help the kit that has just arrived. */
async function layStash(queries: Queries, kingfisher: Kit, lantern: Kit, at: Date): Promise<void> {
  const { faults } = heapOf(lantern.legend, lantern.canvas.packetDrills, seeded(7));
  const random = seeded(17);
  const leftovers = [
    ...kingfisher.legend
      .filter((line) => line.line % 3 === 0)
      .map((line) => ({ line, drills: between(random, 20, 380) })),
    { line: faults.short, drills: 30 },
    {
      line: { ...faults.missing, code: '2930', name: 'Old oak', hex: shifted(faults.missing.hex ?? '') },
      drills: 260,
    },
    {
      line: { ...faults.short, code: '3155', name: 'Late dusk', hex: shifted(faults.short.hex ?? '') },
      drills: 145,
    },
  ];
  for (const { line, drills } of leftovers) {
    const { code, name, hex, finish } = line;
    const id = randomUUID();
    await addStashItem(queries, { id, code, name, hex, finish, shape: 'square' }, at.toISOString());
    const move = { id: randomUUID(), itemId: id, drills: Math.round(drills), bagId: null };
    await addStashMove(queries, move, at.toISOString());
  }
}

/** A colour a shade beside another. */
function shifted(hex: string): string {
  const [red, green, blue] = hexToRgb(hex);
  return rgbToHex([Math.min(255, red + 7), green, Math.max(0, blue - 5)]);
}

async function countAllBags(queries: Queries, kit: Kit, at: Date): Promise<void> {
  for (const line of kit.legend) {
    for (let bag = 0; bag < line.packets; bag++) {
      await addBagEntry(queries, {
        id: randomUUID(),
        canvasId: kit.canvas.id,
        screenId: null,
        happenedAt: at.toISOString(),
        kind: 'count',
        line: line.line,
        label: line.code,
        drills: kit.canvas.packetDrills,
        how: 'nominal',
        spread: null,
        shared: [],
        origin: 'kit',
        subject: null,
        undoes: null,
        redoes: null,
      });
    }
  }
}

async function layHistory(queries: Queries, kit: Kit, sittings: DemoSitting[]): Promise<void> {
  const cells = kit.chart.cells.length;
  const stretch = { first: 0, cells, lines: kit.chart.cells, laid: emptyBitmap(cells) };
  for (const sitting of sittings) {
    const sittingId = randomUUID();
    await addSitting(queries, kit.canvas.id, sittingId, sitting.startedAt.toISOString());
    for (const { at, runs } of sitting.marks) {
      applyMark(stretch.laid, 'lay', runs);
      await addMark(
        queries,
        {
          id: randomUUID(),
          canvasId: kit.canvas.id,
          screenId: null,
          sittingId,
          happenedAt: at.toISOString(),
          kind: 'lay',
          changed: runs,
          line: onlyLine(kit.chart.cells, runs),
          undoes: null,
          redoes: null,
          digest: digestOf(runs),
        },
        stretch,
      );
    }
    await endSitting(queries, sittingId, sitting.endedAt.toISOString(), sitting.note);
  }
}

async function printHeap(): Promise<void> {
  const { canvas, legend } = await lanternKit();
  const { bags } = heapOf(legend, canvas.packetDrills, seeded(7));
  console.log(`The heap of ${canvas.title}, as typed at check-in:`);
  for (const bag of bags) {
    console.log(bag.drills === canvas.packetDrills ? bag.label : `${bag.label} x ${bag.drills}`);
  }
}

lay().catch((error: unknown) => {
  console.error(error instanceof DirectoryInUse || error instanceof DataFault ? error.message : error);
  process.exit(1);
});
