import { Refusal } from '../../core/refusal';
import { readJob } from './job';

/** `bin/read-photos JOB.json`: prints what the photographs say as JSON. */
async function main(): Promise<void> {
  const [path] = process.argv.slice(2);
  if (!path) throw new Refusal('Usage: bin/read-photos JOB.json');
  const read = await readJob(path, (words) => console.error(words));
  process.stdout.write(`${JSON.stringify(read)}\n`);
}

main().catch((error: unknown) => {
  console.error(error instanceof Refusal ? error.message : error);
  process.exitCode = error instanceof Refusal ? 2 : 1;
});
