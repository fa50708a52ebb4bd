import { afterAll, afterEach } from 'vitest';

// A page outlives the tests of its file, for files share a worker: what one leaves behind would be found by the next.
// A worker goes on with tests that have none.
const hasPage = () => typeof document !== 'undefined' && document.body !== undefined;

// What is waited for comes within milliseconds; a machine that does something else meanwhile may stand for seconds.
if (hasPage()) (await import('@testing-library/react')).configure({ asyncUtilTimeout: 15_000 });

afterEach(async () => {
  if (hasPage()) (await import('@testing-library/react')).cleanup();
});
afterAll(() => {
  if (!hasPage()) return;
  document.body.replaceChildren();
  localStorage.clear();
  sessionStorage.clear();
});
