import { availableParallelism } from 'node:os';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Piscina } from 'piscina';
import { Refusal } from '../../core/refusal';
import { Problem } from '../http/problem';
import { currentRequest } from './currentRequest';
import { Progress } from './progress';
import type { TaskInput, TaskName, TaskOutput } from './tasks';
import type { Order, Outcome } from './worker';

/** A thread that needs more is ended, and the process lives on. */
const HEAP_MB = 768;
/** Nothing that a canvas of a million cells needs takes so long. */
const TIME_LIMIT_MS = 240_000;
/** So many pieces of work may wait for a thread. */
const MAX_WAITING = 40;

// The start script and the pages are bundled apart, and work with the same threads.
const holder = globalThis as typeof globalThis & {
  oculentPool?: Piscina<Order, Outcome>;
  oculentBackground?: Piscina<Order, Outcome>;
};

function newPool(minThreads: number, maxThreads: number): Piscina<Order, Outcome> {
  const pool = new Piscina<Order, Outcome>({
    ...entry(),
    minThreads,
    maxThreads,
    idleTimeout: 60_000,
    maxQueue: MAX_WAITING,
    resourceLimits: { maxOldGenerationSizeMb: HEAP_MB },
  });
  // A thread that ends while nobody waits for it ends nothing else.
  pool.on('error', (error: unknown) => console.error(error));
  return pool;
}

/** For what somebody waits for. One core stays with the requests. */
function thePool(): Piscina<Order, Outcome> {
  holder.oculentPool ??= newPool(1, Math.max(1, Math.min(4, availableParallelism() - 1)));
  return holder.oculentPool;
}

/** For what nobody waits for, so that no page waits behind it either. */
function theBackground(): Piscina<Order, Outcome> {
  holder.oculentBackground ??= newPool(0, 1);
  return holder.oculentBackground;
}

/** Starts the first thread before anybody asks for work, for that takes a while. */
export function startThread(): void {
  thePool();
}

/** The built worker; `OCULENT_THREADS` names another build. */
function entry(): { filename: string } {
  const built = resolve(process.env.OCULENT_THREADS ?? 'dist/server');
  return { filename: pathToFileURL(join(built, 'jobs/worker.mjs')).href };
}

/** A piece of work that a page asks about while it runs, and may end. */
export interface Job {
  progress: Progress;
  signal: AbortSignal;
}

/**
 * Does heavy work in another thread, so that other requests get their answers meanwhile.
 * It ends with the request that it is for, too.
 * @param job how it may be watched and ended
 * @param inBackground whether nobody waits for it
 * @throws Refusal of the work itself; Problem when it was ended, took too long or too much memory, or too much waits
 */
export async function inWorker<Name extends TaskName>(
  name: Name,
  input: TaskInput<Name>,
  job: Job | null = null,
  inBackground = false,
): Promise<TaskOutput<Name>> {
  const progress = job?.progress ?? new Progress();
  const limit = AbortSignal.timeout(TIME_LIMIT_MS);
  const asked = [job?.signal, currentRequest.getStore()?.signal].filter((signal) => signal !== undefined);
  const signal = AbortSignal.any([...asked, limit]);
  let outcome: Outcome;
  try {
    const pool = inBackground ? theBackground() : thePool();
    outcome = await pool.run({ name, input, progress: progress.shared }, { signal });
  } catch (error) {
    throw worded(error, asked, limit);
  }
  return outputOf(outcome) as TaskOutput<Name>;
}

/** What a thread made. @throws Refusal where it refused */
export function outputOf(outcome: Outcome): unknown {
  if ('output' in outcome) return outcome.output;
  const { sentence, status, title, more } = outcome.refused;
  throw status === null ? new Refusal(sentence) : new Problem(status, title, sentence, more);
}

function worded(error: unknown, asked: readonly AbortSignal[], limit: AbortSignal): unknown {
  if (asked.some(({ aborted }) => aborted))
    return new Problem(409, 'Ended', 'This was cancelled. Nothing was changed.');
  if (limit.aborted) {
    return new Problem(
      422,
      'Too much',
      'This takes too long and was stopped. Try it with something smaller.',
    );
  }
  const { code, message } = error as { code?: string; message?: string };
  if (code === 'ERR_WORKER_OUT_OF_MEMORY') {
    return new Problem(
      422,
      'Too much',
      'This needs too much memory and was stopped. Try it with something smaller.',
    );
  }
  if (message === 'Task queue is at limit') {
    return new Problem(503, 'Too busy', 'Oculent is busy with other work. Try again in a minute.');
  }
  return error;
}
