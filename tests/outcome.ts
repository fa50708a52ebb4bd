import { writeFileSync } from 'node:fs';
import { relative } from 'node:path';
import type { Reporter, SerializedError, TestModule } from 'vitest/node';

/** A machine that did not let this program work for so long (ms) stood still; tests that waited then say nothing. */
const STILL_MS = 5000;

/**
 * What a run came to, for bin/test: into the file that `OCULENT_OUTCOME` names go the counts of what passed, failed, and
 * passed only at a second try, and below them what failed, in its own words.
 */
export default class Outcome implements Reporter {
  #longestStill = 0;
  #watch: NodeJS.Timeout | undefined;

  /** From the first file on: before it, this program itself makes databases and has no time for a clock. */
  onTestModuleStart(): void {
    if (this.#watch) return;
    let last = performance.now();
    this.#watch = setInterval(() => {
      const now = performance.now();
      this.#longestStill = Math.max(this.#longestStill, now - last - 1000);
      last = now;
    }, 1000);
    this.#watch.unref();
  }

  onTestRunEnd(modules: readonly TestModule[], unhandled: readonly SerializedError[]): void {
    clearInterval(this.#watch);
    const counts = { passed: 0, failed: 0, shaky: 0 };
    const words: string[] = [];
    const tell = (what: string, errors: readonly SerializedError[]) => {
      words.push(`✗ ${what}`);
      for (const { message, stack } of errors) {
        words.push(`    ${message}`);
        const own = (stack ?? '').split('\n').filter((line) => /^\s+at .*[\\/](src|tests)[\\/]/.test(line));
        words.push(...own.slice(0, 3).map((line) => `    ${line.trim()}`));
      }
    };
    for (const module of modules) {
      const file = relative('.', module.moduleId);
      for (const test of module.children.allTests()) {
        const { state, errors } = test.result();
        if (state === 'passed') counts.passed++;
        if (state === 'failed') {
          counts.failed++;
          tell(`${file}: ${test.fullName}`, errors ?? []);
        }
        if (test.diagnostic()?.flaky) {
          counts.shaky++;
          words.push(`${file}: ${test.fullName} passed only at a second try`);
        }
      }
      // What went wrong around its tests: a file that does not load, a step before them.
      const around = [...module.children.allSuites()].flatMap((suite) => suite.errors());
      if (module.errors().length + around.length > 0) {
        counts.failed++;
        tell(file, [...module.errors(), ...around]);
      }
    }
    if (unhandled.length > 0) {
      counts.failed++;
      tell('an error outside of any test', unhandled);
    }
    if (this.#longestStill > STILL_MS) {
      words.push(`The machine stood still for ${Math.round(this.#longestStill / 1000)} s meanwhile.`);
    }
    const { passed, failed, shaky } = counts;
    writeFileSync(process.env.OCULENT_OUTCOME!, `${passed} ${failed} ${shaky}\n${words.join('\n')}\n`);
  }
}
