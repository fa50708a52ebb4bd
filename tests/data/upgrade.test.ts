import { randomUUID } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { cp, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { legendOf, nextLine, shelf } from '../../src/data/canvas';
import { countedBags } from '../../src/data/checkin';
import { migrate } from '../../src/data/engine/migrate';
import { openInMemory } from '../../src/data/engine/pglite';
import { emptyDump } from './memory';

const MIGRATIONS = 'src/data/migrations';

/** A directory with the migrations up to one, as an older program had them. */
async function migrationsUpTo(last: string): Promise<string> {
  const directory = await mkdtemp(join(tmpdir(), 'oculent-migrations-'));
  for (const file of readdirSync(MIGRATIONS)) {
    if (file <= last) await cp(join(MIGRATIONS, file), join(directory, file));
  }
  return directory;
}

it('a shelf from before colours had identities keeps its lists, its bags and where they came from', async () => {
  const older = await migrationsUpTo('010-one-way-to-write.sql');
  const database = await openInMemory(await emptyDump());
  await migrate(database, { directory: older });
  const [canvas, other] = [randomUUID(), randomUUID()];
  const now = '2026-05-01T10:00:00Z';
  for (const id of [canvas, other]) {
    await database.query(
      `insert into canvas (id, title, shape, pitch_mm, width, height, created_at) values ($1, 'Old', 'square', 2.5, 4, 2, $2)`,
      [id, now],
    );
    for (const line of [1, 2]) {
      await database.query(
        `insert into legend_line (canvas_id, line, key_number, code, name, finish, needed_drills, packets)
         values ($1, $2, $3, $4, '', 'plain', 100, 2)`,
        [id, line, String(line), `40${line}`],
      );
    }
  }
  const bag = async (
    id: string,
    kind: string,
    line: number | null,
    more: { subject?: string; undoes?: string } = {},
  ) =>
    database.query(
      `insert into bag_entry (id, canvas_id, happened_at, kind, line, label, drills, subject, undoes)
       values ($1, $2, $3, $4, $5, 'x', 200, $6, $7)`,
      [id, canvas, now, kind, line, more.subject ?? null, more.undoes ?? null],
    );
  const [kit, stray, stash, gone] = [randomUUID(), randomUUID(), randomUUID(), randomUUID()];
  await bag(kit, 'count', 1);
  await bag(stray, 'count', null);
  await bag(randomUUID(), 'assign', 2, { subject: stray });
  await bag(stash, 'count', 1);
  await bag(gone, 'count', 2);
  await bag(randomUUID(), 'take back', 2, { undoes: gone });
  const item = randomUUID();
  await database.query(
    `insert into stash_item (id, code, name, finish, shape, created_at) values ($1, '401', '', 'plain', 'square', $2)`,
    [item, now],
  );
  await database.query(
    'insert into stash_move (id, item_id, happened_at, drills, bag_id) values ($1, $2, $3, -200, $4)',
    [randomUUID(), item, now, stash],
  );
  // The bag of a colour that an undone finish had taken away: its number is not used again.
  await bag(randomUUID(), 'count', 7);

  await migrate(database);

  expect((await legendOf(database, canvas)).map(({ line, code }) => [line, code])).toEqual([
    [1, '401'],
    [2, '402'],
  ]);
  expect([await nextLine(database, canvas), await nextLine(database, other)]).toEqual([8, 3]);
  const { bags } = await countedBags(database, canvas);
  expect(bags.map(({ id, line, origin }) => [id, line, origin]).slice(0, 3)).toEqual([
    [kit, 1, 'kit'],
    [stray, 2, 'kit'],
    [stash, 1, 'stash'],
  ]);
  const [first] = await shelf(database, canvas);
  expect(first).toMatchObject({ bagsCounted: 4, bagsToFind: 1 });
  expect((await shelf(database, other))[0]).toMatchObject({ bagsCounted: 0, bagsToFind: 4 });
  await database.close();
  await rm(older, { recursive: true });
});
