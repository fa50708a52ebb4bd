import { Refusal } from '../../core/refusal';
import { Problem } from '../http/problem';
import { Progress } from './progress';
import { TASKS, type TaskName } from './tasks';

/** What a worker gets. */
export interface Order {
  name: TaskName;
  input: unknown;
  progress: SharedArrayBuffer;
}

/** What a worker answers: errors lose their class on the way between threads, so a refusal goes as data. */
export type Outcome =
  | { output: unknown }
  | { refused: { sentence: string; status: number | null; title: string; more: Record<string, unknown> } };

/** Entry of a worker thread. */
export default async function work({ name, input, progress }: Order): Promise<Outcome> {
  try {
    const task = (await TASKS[name]()) as (input: unknown, report: Progress['report']) => unknown;
    return { output: await task(input, new Progress(progress).report) };
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    const problem = error instanceof Problem ? error : null;
    const { status = null, title = '', more = {} } = problem ?? {};
    return { refused: { sentence: error.message, status, title, more } };
  }
}
