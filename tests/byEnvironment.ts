import { readFileSync } from 'node:fs';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** In the order in which their files run. */
const ENVIRONMENTS = ['jsdom', 'happy-dom', 'node'];

/**
 * Files of one environment after each other: a worker keeps its modules only while the next file has the same one, and
 * loading them anew takes as long as the tests of many a file.
 */
export class ByEnvironment extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const sorted = await super.sort(files);
    const place = new Map(sorted.map((file) => [file, ENVIRONMENTS.indexOf(environmentOf(file.moduleId))]));
    return sorted.sort((a, b) => place.get(a)! - place.get(b)!);
  }
}

function environmentOf(file: string): string {
  return /^\/\/ @vitest-environment (\S+)/m.exec(readFileSync(file, 'utf8'))?.[1] ?? 'node';
}
