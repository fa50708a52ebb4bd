// By its extension, for this module stands in place of the one without.
import { type Job, outputOf } from '../src/server/jobs/pool.ts';
import { Progress } from '../src/server/jobs/progress';
import type { TaskInput, TaskName, TaskOutput } from '../src/server/jobs/tasks';
import work from '../src/server/jobs/worker';

export type { Job };

/** In place of the threads, which take the code as it is: the same work here, where a change is seen. */
export async function inWorker<Name extends TaskName>(
  name: Name,
  input: TaskInput<Name>,
  job: Job | null = null,
): Promise<TaskOutput<Name>> {
  const { shared } = job?.progress ?? new Progress();
  return outputOf(await work({ name, input: structuredClone(input), progress: shared })) as TaskOutput<Name>;
}

export function startThread(): void {}
