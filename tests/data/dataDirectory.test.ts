import { randomUUID } from 'node:crypto';
import { cp, mkdir, mkdtemp, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { addCanvas, shelf } from '../../src/data/canvas';
import type { Database } from '../../src/data/engine/database';
import { openDataDirectory } from '../../src/data/engine/dataDirectory';
import { DurableFs } from '../../src/data/engine/durableFs';
import { openInDirectory } from '../../src/data/engine/pglite';

let all: string;
/** A directory with one canvas, closed; each test has a copy. */
let kept: string;
let directory: string;
beforeAll(async () => {
  all = await mkdtemp(join(tmpdir(), 'oculent-data-'));
  kept = join(all, 'kept');
  const database = await openDataDirectory(kept);
  await addCanvas(
    database,
    {
      id: randomUUID(),
      title: 'Kept',
      shape: 'square',
      pitchMm: 2.5,
      bagsCarry: null,
      width: 4,
      height: 4,
      panels: 1,
      symbolsPrinted: true,
      packetDrills: 200,
    },
    new Date(0).toISOString(),
  );
  await database.close();
});
afterAll(() => rm(all, { recursive: true, force: true }));
beforeEach(async () => {
  directory = join(all, randomUUID());
  await cp(kept, directory, { recursive: true });
});

async function titles(path = directory): Promise<string[]> {
  const database = await openDataDirectory(path);
  try {
    return (await shelf(database)).map(({ canvas }) => canvas.title);
  } finally {
    await database.close();
  }
}

/** Names and sizes of everything there; what is refused is not touched. */
async function everything(): Promise<string[]> {
  const entries = await readdir(directory, { recursive: true, withFileTypes: true });
  const told = entries.map(async (entry) => {
    const path = join(entry.parentPath, entry.name);
    return `${path} ${entry.isFile() ? (await stat(path)).size : ''}`;
  });
  return (await Promise.all(told)).sort();
}

async function refused(sentence: string): Promise<void> {
  const before = await everything();
  await expect(openDataDirectory(directory)).rejects.toThrow(sentence);
  expect(await everything()).toEqual(before);
}

describe('a data directory', () => {
  it('that is ours opens, as often as one likes', async () => {
    expect(await titles()).toEqual(['Kept']);
    expect(await titles()).toEqual(['Kept']);
  });

  it('that is empty, or not there, begins with an empty shelf', async () => {
    const fresh = join(all, randomUUID());
    expect(await titles(fresh)).toEqual([]);
    expect((await readdir(fresh)).sort()).toEqual(['oculent.json', 'pglite']);
  });

  it('in which setting up was cut short begins again', async () => {
    const fresh = join(all, randomUUID());
    await mkdir(join(fresh, 'pglite.new'), { recursive: true });
    await writeFile(join(fresh, 'pglite.new', 'half'), 'a copy');
    expect(await titles(fresh)).toEqual([]);
  });

  it.each(['PG_VERSION', 'global/pg_control'])('that lost %s is never begun anew', async (name) => {
    await rm(join(directory, 'pglite', name));
    await refused(`pglite/${name} is missing`);
  });

  it('that lost its database is never begun anew', async () => {
    await rename(join(directory, 'pglite'), join(all, `${randomUUID()}-gone`));
    await refused('The database is missing');
  });

  it('that holds files of others is left alone', async () => {
    await rm(directory, { recursive: true });
    await mkdir(directory);
    await writeFile(join(directory, 'letter.txt'), 'Dear …');
    await refused('This directory holds other files (letter.txt)');
  });

  it('with a marker that cannot be read says so', async () => {
    await writeFile(join(directory, 'oculent.json'), '{ "format": 1');
    await refused('oculent.json cannot be read');
  });

  it('whose database came from elsewhere says so', async () => {
    const marker = { format: 1, dataSet: randomUUID() };
    await writeFile(join(directory, 'oculent.json'), JSON.stringify(marker));
    await expect(openDataDirectory(directory)).rejects.toThrow('do not belong together');
    await expect(openDataDirectory(directory)).rejects.toThrow('do not belong together');
  });

  it('that a newer program wrote is refused', async () => {
    await withRaw((database) =>
      database.query("insert into migration (name, hash) values ('999-later.sql', 'x')").then(() => {}),
    );
    await expect(openDataDirectory(directory)).rejects.toThrow('written by a newer Oculent');
  });

  it('whose history is another one is refused', async () => {
    await withRaw((database) =>
      database.query("update migration set hash = 'other' where name like '003%'").then(() => {}),
    );
    await expect(openDataDirectory(directory)).rejects.toThrow('went through other steps');
  });

  it('with a gap in its history is refused', async () => {
    await withRaw((database) =>
      database.query("delete from migration where name like '003%'").then(() => {}),
    );
    await expect(openDataDirectory(directory)).rejects.toThrow('went through other steps');
  });

  it('from before there were markers gets one, and is for its owner alone', async () => {
    await rm(join(directory, 'oculent.json'));
    await withRaw((database) =>
      database.script(
        `drop table data_set; drop table in_front; drop table area_tick; drop table section_cut; drop table section_wish;
         drop table placing_wish; alter table pen_tip drop constraint pen_tip_pkey;
         alter table pen_tip drop column shape; alter table pen_tip drop column pen;
         alter table pen_tip drop column worn; alter table pen_tip add primary key (drills);
         drop table reading_chart; drop table reading_answer; drop table reading_sample; drop table reading_result; drop table reading_photo;
         drop table progress_wish; drop table canvas_photo; drop table finish_entry; drop index mark_by_moment; drop index mark_lifts; drop index mark_without_screen;
         alter table mark drop column popped; alter table mark drop column before; alter table canvas drop column no_cases;
         drop function tell_of_mark, tell_of_canvas, tell_of_deleted, tell_of_shelf cascade;
         drop table screen; drop table device_session; drop table device; drop table home_network;
         alter table sitting drop column screen_id;
         alter table migration drop column hash;
         delete from migration where name >= '015'`,
      ),
    );
    const before: string[] = [];
    const database = await openDataDirectory(directory, async (each) => {
      before.push(
        ...(await each.query<{ title: string }>('select title from canvas')).map(({ title }) => title),
      );
    });
    expect((await shelf(database)).map(({ canvas }) => canvas.title)).toEqual(['Kept']);
    const [row] = await database.query<{ id: string }>('select id from data_set');
    await database.close();
    // What is done before the tables change saw the data.
    expect(before).toEqual(['Kept']);
    expect(JSON.parse(await readFile(join(directory, 'oculent.json'), 'utf8')).dataSet).toBe(row!.id);
    for (const line of await everything()) {
      const path = line.slice(0, line.lastIndexOf(' '));
      expect((await stat(path)).mode & 0o077, path).toBe(0);
    }
  });

  it('whose control file is spoilt says that it is damaged', async () => {
    await writeFile(join(directory, 'pglite/global/pg_control'), new Uint8Array(8192));
    await expect(openDataDirectory(directory)).rejects.toThrow('its files are damaged');
  });
});

/** Works on the database as it lies there, past all checks. */
async function withRaw(work: (database: Database) => Promise<void>): Promise<void> {
  const database = await openInDirectory(new DurableFs(join(directory, 'pglite')));
  await work(database);
  await database.close();
}
