import { createServer, type IncomingMessage, type RequestListener, type ServerResponse } from 'node:http';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { readRetention } from '../../core/backups/retention';
import { connection, forgetConnection, type KeptDatabase } from '../../data/engine/connection';
import { dataDirectory } from '../../data/engine/dataDirectory';
import { backupHelps, isDataFault } from '../../data/engine/dataFault';
import { keepStatistics } from '../../data/engine/statistics';
import { callerOf } from '../devices/caller';
import { theHomeNetwork } from '../devices/homeNetwork';
import { filesIn } from './files';
import { limited, limitServer } from './limits';
import { behindPassphrase, readPassphrase } from './passphrase';
import { whenReplaced } from './replaced';

/** Whatever hangs, the program is gone after this. */
const STOP_MS = 4000;

/** What can wait does not hold up the first page. */
const AT_EASE_MS = 3000;

/** What runs here. */
const PROGRAM = join(process.cwd(), 'dist/server/start.mjs');

/** Starts the built application: takes the data, then listens on the loopback address. */
async function start(): Promise<void> {
  const port = readPort(process.env.PORT);
  const passphrase = readPassphrase(process.env.OCULENT_PASSPHRASE);
  // A slip in it is told now, not by a backup that is missing.
  readRetention(process.env.OCULENT_BACKUPS);
  console.log('Opening the shelf…');
  let database: KeptDatabase | null = null;
  let listener: RequestListener;
  // They are read while the database is made ready elsewhere; the first request waits for what is left of it.
  const pages = application();
  pages.catch(() => {});
  const open = async () => {
    const opened = await connection(backUpBefore);
    database = opened;
    pages.catch((error: unknown) => fail(sentenceOf(error)));
    listener = (request, response) => void pages.then((answer) => answer(request, response));
    atEase(async () => (await import('../backups/backups')).backUpDaily(opened));
    atEase(async () => (await import('../jobs/pool')).startThread());
    keepStatistics(opened);
    const { openHome } = await import('../devices/opening');
    await openHome(opened, port, (request, response) => listener(request, response));
  };
  try {
    await open();
  } catch (error) {
    if (!isDataFault(error) || !backupHelps(error)) throw error;
    const { rescueListener } = await import('../rescue/rescue');
    forgetConnection();
    console.error(error.message);
    const rescue = await rescueListener(dataDirectory(), error, open);
    const { good } = rescue;
    console.error(
      good
        ? `The newest good backup is ${good.name}. Open the page below to restore it.`
        : 'There is no good backup here.',
    );
    listener = rescue.listener;
  }
  const current: RequestListener = (request, response) => listener(request, response);
  const server = createServer(limited(behindPassphrase(current, passphrase)));
  limitServer(server);
  server.once('error', (error: NodeJS.ErrnoException) => {
    const taken = error.code === 'EADDRINUSE';
    void Promise.resolve(database?.close()).finally(() =>
      fail(
        taken
          ? `Port ${port} is taken. Choose another one, for example PORT=${port + 1} bin/oculent`
          : error.message,
      ),
    );
  });
  server.listen(port, '127.0.0.1', () => {
    console.log(`Oculent is open at http://127.0.0.1:${port}/ (Ctrl+C closes it)`);
  });
  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    // A thread that is busy in foreign code cannot be asked to stop. What was acknowledged is on the disk.
    setTimeout(() => process.kill(process.pid, 'SIGKILL'), STOP_MS);
    server.close();
    server.closeIdleConnections();
    void theHomeNetwork()?.turnOff();
    void Promise.resolve(database?.close()).finally(() => process.exit(0));
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
  whenReplaced(PROGRAM, () => {
    console.log('Oculent was brought up to date, so this one closes. Start it again.');
    stop();
  });
}

function atEase(work: () => Promise<void>): void {
  const begin = () => work().catch((error: unknown) => console.error(sentenceOf(error)));
  setTimeout(begin, AT_EASE_MS).unref();
}

// What few starts need is read when it is needed: reading all of it takes half as long as the rest of a start.
async function backUpBefore(older: KeptDatabase): Promise<void> {
  const { makeBackup } = await import('../backups/backups');
  await makeBackup(older, 'before an update', new Date());
  console.log('A backup was made before the update.');
}

async function run(command: string, rest: readonly string[]): Promise<void> {
  await (await import('../backups/command')).runCommand(command, rest);
}

interface Pages {
  handler(
    request: IncomingMessage,
    response: ServerResponse,
    next: (() => void) | undefined,
    locals: App.Locals,
  ): void;
}

/** The page that says so. By itself the framework would forget who asks. */
function notThere({ handler }: Pages, request: IncomingMessage, response: ServerResponse): void {
  request.url = '/404';
  handler(request, response, undefined, { caller: callerOf(request) });
}

/** The built pages and their files. */
async function application(): Promise<RequestListener> {
  const entry = (await import(pathToFileURL(join(process.cwd(), 'dist/server/entry.mjs')).href)) as Pages;
  const files = await filesIn(join(process.cwd(), 'dist/client'));
  return (request, response) =>
    files(request, response, () =>
      entry.handler(request, response, () => notThere(entry, request, response), {
        caller: callerOf(request),
      }),
    );
}

function readPort(text = '4470'): number {
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    fail(`PORT must be a number from 1 to 65535, not “${text}”.`);
  return port;
}

function fail(sentence: string): never {
  console.error(sentence);
  process.exit(1);
}

// Whatever is written is for its owner alone.
process.umask(0o077);
const [command, ...rest] = process.argv.slice(2);
(command === undefined ? start() : run(command, rest)).catch((error: unknown) => fail(sentenceOf(error)));

function sentenceOf(error: unknown): string {
  if (!(error instanceof Error)) return String(error);
  return 'detail' in error ? String(error.detail) : error.message;
}
