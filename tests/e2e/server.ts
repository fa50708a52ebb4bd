import { type ChildProcess, spawn } from 'node:child_process';
import { cp, mkdtemp, rm } from 'node:fs/promises';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A built Oculent that runs as a process of its own. */
export interface RunningServer {
  url: string;
  port: number;
  data: string;
  process: ChildProcess;
  /** All that it has printed so far. */
  output(): string;
}

/** The start script as it is built and shipped. */
export const START = 'dist/server/start.mjs';
const nodeFor = (script: string) => (script.endsWith('.ts') ? ['--import', 'tsx', script] : [script]);

export function throwAwayDirectory(): Promise<string> {
  return mkdtemp(join(tmpdir(), 'oculent-e2e-'));
}

export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });
}

/** Runs a script of ours to its end. @returns exit code and all that it printed */
export function run(
  script: string,
  args: string[],
  env: Record<string, string>,
): Promise<{ code: number | null; output: string }> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [...FLAGS, ...nodeFor(script), ...args], {
      env: { ...process.env, ...env },
    });
    let output = '';
    child.stdout.on('data', (text) => {
      output += text;
    });
    child.stderr.on('data', (text) => {
      output += text;
    });
    child.once('exit', (code) => resolve({ code, output }));
  });
}

/**
 * What runs often is optimised later than in real use: three dozen servers, each for a minute, would spend a third of their
 * work on it.
 */
const FLAGS = ['--wasm-tiering-budget=200000000', '--interrupt-budget=1000000'];

/** @param where it is built; here, where nothing is said */
export async function startServer(data: string, port: number, where?: string): Promise<RunningServer> {
  const child = spawn(process.execPath, [...FLAGS, START], {
    cwd: where,
    env: {
      ...process.env,
      OCULENT_DATA: data,
      PORT: String(port),
      OCULENT_SIMULATED: '1',
      OCULENT_BACKUPS: 'off',
      OCULENT_HOME_ADDRESSES: '127.0.0.2',
    },
  });
  let output = '';
  await new Promise<void>((resolve, reject) => {
    const listen = (text: Buffer) => {
      output += text;
      if (output.includes('Oculent is open')) resolve();
    };
    child.stdout.on('data', listen);
    child.stderr.on('data', listen);
    child.once('exit', (code) => reject(new Error(`The server stopped with ${code}: ${output}`)));
  });
  return { url: `http://127.0.0.1:${port}`, port, data, process: child, output: () => output };
}

/** A server of its own with the demo data. */
export async function startDemoServer(): Promise<RunningServer> {
  const data = await throwAwayDirectory();
  await cp(process.env.OCULENT_TEST_TEMPLATE!, data, { recursive: true });
  return startServer(data, await freePort());
}

/** Kills a server and throws its data away. */
export async function throwAway(server: RunningServer): Promise<void> {
  await stop(server, 'SIGKILL');
  await rm(server.data, { recursive: true, force: true });
}

export function stop(server: RunningServer, signal: NodeJS.Signals): Promise<void> {
  return new Promise((resolve) => {
    if (server.process.exitCode !== null || server.process.signalCode !== null) return resolve();
    server.process.once('exit', () => resolve());
    server.process.kill(signal);
  });
}
