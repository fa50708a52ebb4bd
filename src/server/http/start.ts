import { stat } from 'node:fs/promises';
import { createServer, type RequestListener } from 'node:http';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import sirv from 'sirv';
import { connection } from '../../data/engine/connection';
import { dataDirectory } from '../../data/engine/dataDirectory';
import { DirectoryInUse } from '../../data/engine/dataLock';

/** Starts the built application: takes the data, then listens on the loopback address. */
async function start(): Promise<void> {
  const port = readPort(process.env.PORT);
  const isNew = (await stat(join(dataDirectory(), 'pglite')).catch(() => null)) === null;
  console.log(isNew ? 'Setting up an empty shelf…' : 'Opening the shelf…');
  const database = await connection();
  const entry = (await import(pathToFileURL(join(process.cwd(), 'dist/server/entry.mjs')).href)) as {
    handler: RequestListener;
  };
  const files = sirv(join(process.cwd(), 'dist/client'), {
    etag: true,
    setHeaders: (response, path) => {
      response.setHeader('x-content-type-options', 'nosniff');
      response.setHeader('cross-origin-resource-policy', 'same-origin');
      // Built files carry a hash of their content in the name.
      if (path.startsWith('/_astro/'))
        response.setHeader('cache-control', 'public, max-age=31536000, immutable');
    },
  });
  const server = createServer((request, response) => {
    files(request, response, () => entry.handler(request, response));
  });
  // Longer than clients keep a connection: else one of them may send into a connection that is just being closed.
  server.keepAliveTimeout = 65_000;
  server.once('error', (error: NodeJS.ErrnoException) => {
    const taken = error.code === 'EADDRINUSE';
    void database
      .close()
      .finally(() =>
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
    server.close();
    server.closeIdleConnections();
    void database.close().finally(() => process.exit(0));
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
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

start().catch((error: unknown) => fail(error instanceof DirectoryInUse ? error.message : String(error)));
