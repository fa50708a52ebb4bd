import { rm } from 'node:fs/promises';
import { freePort, run, startServer, stop, throwAwayDirectory } from './server';

/** One built server with the demo data, on its own port and in a directory that is thrown away. */
export default async function globalSetup(): Promise<() => Promise<void>> {
  const data = await throwAwayDirectory();
  const laid = await run('demo/lay.ts', [], { OCULENT_DATA: data });
  if (laid.code !== 0) throw new Error(`The demo data could not be laid: ${laid.output}`);
  const server = await startServer(data, await freePort());
  process.env.OCULENT_TEST_URL = server.url;
  return async () => {
    await stop(server, 'SIGTERM');
    await rm(data, { recursive: true, force: true });
  };
}
