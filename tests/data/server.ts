import { spawn, spawnSync } from 'node:child_process';
import { chown, mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';

/*
 * A PostgreSQL server for the tests, in a directory that is thrown away, on a socket in it. Where `OCULENT_TEST_SERVER`
 * is set, tests of data and server run on it in place of PGlite.
 */
async function programs(): Promise<string | null> {
  const root = '/usr/lib/postgresql';
  const versions = (await readdir(root).catch(() => [])).sort((a, b) => Number(b) - Number(a));
  return versions[0] ? join(root, versions[0], 'bin') : null;
}

/** Starts a server, as another user where we are root, for PostgreSQL refuses to run as root. */
export async function startPostgres(): Promise<{ url: string; stop: () => Promise<void> }> {
  const bin = await programs();
  if (!bin) throw new Error('There is no PostgreSQL here. Install Debian’s package postgresql.');
  const directory = await mkdtemp(join(tmpdir(), 'oculent-postgres-'));
  const asRoot = userInfo().uid === 0;
  const id = (which: '-u' | '-g') =>
    Number(spawnSync('id', [which, 'postgres'], { encoding: 'utf8' }).stdout);
  const user = asRoot ? { uid: id('-u'), gid: id('-g') } : {};
  if (user.uid !== undefined) await chown(directory, user.uid, user.gid);
  const data = join(directory, 'data');
  const made = spawnSync(
    join(bin, 'initdb'),
    ['-D', data, '-U', 'oculent', '-A', 'trust', '-E', 'UTF8', '--locale', 'C.UTF-8', '--no-sync'],
    { ...user, encoding: 'utf8', cwd: directory },
  );
  if (made.status !== 0) throw new Error(`initdb failed: ${made.stderr}`);
  const options = [
    '-c',
    'listen_addresses=',
    '-k',
    directory,
    '-c',
    'fsync=off',
    '-c',
    'max_connections=200',
  ];
  const server = spawn(join(bin, 'postgres'), ['-D', data, ...options], {
    ...user,
    cwd: directory,
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  await new Promise<void>((resolve, reject) => {
    let said = '';
    server.stderr.on('data', (text) => {
      said += text;
      if (said.includes('ready to accept connections')) resolve();
    });
    server.once('exit', () => reject(new Error(`The PostgreSQL server stopped: ${said}`)));
  });
  return {
    url: `postgres://oculent@localhost/postgres?host=${encodeURIComponent(directory)}`,
    stop: async () => {
      const gone = new Promise((resolve) => server.once('exit', resolve));
      server.kill('SIGINT');
      await gone;
      await rm(directory, { recursive: true, force: true });
    },
  };
}

export async function setup(): Promise<(() => Promise<void>) | undefined> {
  if (!process.env.OCULENT_TEST_SERVER) return undefined;
  const { url, stop } = await startPostgres();
  process.env.OCULENT_TEST_SERVER_URL = url;
  return stop;
}
