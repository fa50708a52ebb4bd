import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import type { Canvas } from '../../src/core/canvas/canvas';
import { USUAL_PLACING } from '../../src/core/placing/wish';
import { USUAL_ORDER } from '../../src/core/sections/order';
import { piecesToText } from '../../src/core/sections/plan';
import { USUAL_WISH } from '../../src/core/sections/wish';
import type { Database } from '../../src/data/engine/database';
import { putInFront } from '../../src/data/inFront';
import { putPlacingWish } from '../../src/data/placing';
import { addCut, putSectionWish } from '../../src/data/sections';
import { putStorage } from '../../src/data/storage';
import { addTick } from '../../src/data/ticks';
import { correctSitting, enterMark } from '../../src/server/bench/writes';
import { editChart } from '../../src/server/chart/edits';
import { correctFacts, saveColourList } from '../../src/server/corrections/writes';
import { planKitup } from '../../src/server/kitup/writes';
import { chartOfRows, line } from '../core/samples';
import { shelve } from '../data/memory';

/** A canvas with something in every table. */
export async function busyCanvas(
  database: Database,
  moment: Date,
  title = 'Owls, “old” & new',
): Promise<Canvas> {
  const legend = [
    line(1, { name: 'Moss, "wet"; dark', symbol: ',' }),
    line(2, { hex: null, symbol: null, name: '' }),
    line(3, { hex: '#d8432b', finish: 'glow' }),
  ];
  const made = await shelve(database, legend, chartOfRows('1123', '2.33', '3211'), {
    title,
    panels: 2,
  });
  const add = (sql: string, ...values: unknown[]) => database.query(sql, values);
  const sitting = randomUUID();
  await add(
    'insert into sitting (id, canvas_id, started_at) values ($1, $2, $3)',
    sitting,
    made.id,
    moment.toISOString(),
  );
  await add(
    'insert into sitting_end (sitting_id, ended_at, note) values ($1, $2, $3)',
    sitting,
    moment.toISOString(),
    'Two\nlines',
  );
  await correctSitting(database, made, sitting, {
    id: randomUUID(),
    startedAt: '2026-02-01T18:00:00.000Z',
    endedAt: '2026-02-01T19:00:00.000Z',
    note: 'Corrected',
    removed: false,
  });
  const mark = { kind: 'lay' as const, sittingId: sitting, undoes: null, redoes: null };
  const first = randomUUID();
  await enterMark(database, made, { ...mark, id: first, runs: [0, 3, 6, 2] });
  await enterMark(database, made, { ...mark, id: randomUUID(), runs: [8, 1] });
  // Ticked before there was a chart.
  const piece = { rects: [{ x: 0, y: 0, width: 2, height: 3 }], line: 1, done: true };
  await addTick(database, made.id, randomUUID(), piece, moment.toISOString());
  await putInFront(database, made.id, { section: 1, line: 2 }, moment.toISOString());
  await add(
    `insert into bag_entry (id, canvas_id, happened_at, kind, line, label, drills, how, spread)
     values ($1, $2, $3, 'count', 1, '401', 190, 'weighed', 2.25), ($4, $2, $3, 'count', null, '9999', 12, 'counted', null)`,
    randomUUID(),
    made.id,
    moment.toISOString(),
    randomUUID(),
  );
  await add('insert into section_plan (canvas_id, block_columns, block_rows) values ($1, 2, 3)', made.id);
  const cut = {
    id: randomUUID(),
    plan: {
      block: null,
      pieces: piecesToText([{ rects: made.panelRects, name: 'All of it' }]),
      order: { ...USUAL_ORDER, focal: { x: 1.5, y: 2 } },
    },
    sections: 1,
  };
  await addCut(database, made, null, { ...cut, undoes: null, redoes: null }, moment.toISOString());
  await addCut(
    database,
    made,
    null,
    { ...cut, id: randomUUID(), undoes: cut.id, redoes: null },
    moment.toISOString(),
  );
  await putSectionWish(database, made.id, { ...USUAL_WISH, hand: 'left', reachMm: 512.5 });
  await putPlacingWish(database, made.id, {
    ...USUAL_PLACING,
    direction: 'sparing',
    singlesAbove: 87.5,
    longest: 4,
    school: 'own',
    ownOrder: [2, 1],
  });
  await add(
    `insert into panel_plan (canvas_id, column_cuts, row_cuts, overlap, margin_mm, reach_width_cm)
     values ($1, '[]', '[]', 0, 12.5, 60)`,
    made.id,
  );
  await add(
    'insert into trash_record (id, canvas_id, happened_at, handled, thrown) values ($1, $2, $3, 400, 9)',
    randomUUID(),
    made.id,
    moment.toISOString(),
  );
  await add(
    `insert into request_state (id, canvas_id, line, happened_at, state) values ($1, $2, 3, $3, 'asked')`,
    randomUUID(),
    made.id,
    moment.toISOString(),
  );
  const photo = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#446688' } })
    .jpeg()
    .toBuffer();
  const entry = randomUUID();
  await add(
    `insert into inspection_entry (id, canvas_id, happened_at, kind, note, width_cm, photo) values ($1, $2, $3, 'size', '', 29.25, $4)`,
    entry,
    made.id,
    moment.toISOString(),
    new Uint8Array(photo),
  );
  await add(
    'insert into inspection_withdrawal (entry_id, happened_at) values ($1, $2)',
    entry,
    moment.toISOString(),
  );
  await editChart(database, made, { id: randomUUID(), edits: [{ runs: [1, 1], line: 3 }] });
  await add(
    'insert into ran_out (id, canvas_id, line, happened_at, left_drills, to_lay) values ($1, $2, 3, $3, 2, 5)',
    randomUUID(),
    made.id,
    moment.toISOString(),
  );
  const basedOn = null;
  await saveColourList(database, made, {
    lines: [{ ...legend[0]!, packets: 4 }, ...legend.slice(1)],
    basedOn,
  });
  await saveColourList(database, made, { lines: legend, basedOn });
  await correctFacts(database, made, { packetDrills: 250 });
  await correctFacts(database, made, { packetDrills: 200 });
  await add(
    `insert into symbol_drawing (canvas_id, code, finish, path) values ($1, '402', 'plain', 'M0 0L100 0L50 100Z')`,
    made.id,
  );
  await add('insert into lid_mark (canvas_id, line, other_line) values ($1, 1, 2)', made.id);
  const slots = [0, 1].map((x) => ({ id: `s${x + 1}`, x, y: 0, width: 1, height: 1, form: 'box' as const }));
  const tray = { columns: 2, rows: 1, unitWidthMm: 30, unitDepthMm: 30, heightMm: 24, wallMm: 1.5, slots };
  const caseId = randomUUID();
  await putStorage(
    database,
    { id: caseId, name: 'Small box', packingShare: 0.55, trays: [tray] },
    moment.toISOString(),
  );
  await planKitup(database, made, {
    storageIds: [caseId],
    order: 'code',
    leave: 'fewest drills',
    goals: ['closes', 'overflow', 'refills', 'order', 'neighbours'],
    several: false,
    locks: [],
  });
  await add(
    `insert into pot_event (id, canvas_id, line, happened_at, kind) values ($1, $2, 1, $3, 'fill')`,
    randomUUID(),
    made.id,
    moment.toISOString(),
  );
  await add(
    `insert into progress_wish (canvas_id, happened_at, finish_by) values ($1, $2, '2030-06-30')`,
    made.id,
    moment.toISOString(),
  );
  await add(
    `insert into canvas_photo (id, canvas_id, happened_at, taken_on, note, photo) values ($1, $2, $3, '2026-02-28', 'Half', $4)`,
    randomUUID(),
    made.id,
    moment.toISOString(),
    new Uint8Array(photo),
  );
  await add(
    `insert into finish_entry (id, canvas_id, happened_at, started_on, minutes, checked, sealing, border_mm, frame_width_mm, frame_height_mm, notes)
     values ($1, $2, $3, '2026-02-01', 90, '["gaps"]', 'no', 10, 300, 400, 'For the hall')`,
    randomUUID(),
    made.id,
    moment.toISOString(),
  );
  const photoId = randomUUID();
  const corners = '1,1 39,1 39,39 1,39';
  await add(
    `insert into reading_photo (id, canvas_id, happened_at, kind, name, width, height, photo, corners, columns, rows, at_column, at_row, pins)
     values ($1, $2, $3, 'canvas', 'Upper left', 40, 40, $4, $5, 2, 1, 0, 0, '1,1,20,20')`,
    ...[photoId, made.id, moment.toISOString(), new Uint8Array(photo), corners],
  );
  await add(
    `insert into reading_result (id, photo_id, canvas_id, happened_at, columns, rows, cell_px, cells, others, doubt, torn, mesh, photo)
     values ($1, $2, $3, $4, 2, 1, 19.5, 'AQACAA==', 'AgABAA==', 'AAAAgA==', 'AAABAA==', $5, $6)`,
    ...[randomUUID(), photoId, made.id, moment.toISOString(), 'A'.repeat(64), new Uint8Array(photo)],
  );
  await add(
    `insert into reading_sample (canvas_id, line, happened_at, origin, glyph, tint) values ($1, 1, $2, 'list', $3, '[0.5, 0.25, 0.125]')`,
    ...[made.id, moment.toISOString(), `${'A'.repeat(1366)}==`],
  );
  await add(
    `insert into reading_answer (id, canvas_id, happened_at, answers) values ($1, $2, $3, '[[0, 0, 1], [1, 0, 2]]')`,
    ...[randomUUID(), made.id, moment.toISOString()],
  );
  await add(
    `insert into reading_chart (canvas_id, happened_at, photos, columns, origins) values ($1, $2, $3::jsonb, 2, '1×2')`,
    ...[made.id, moment.toISOString(), JSON.stringify([photoId])],
  );
  return made;
}
