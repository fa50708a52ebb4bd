import { afterAll, afterEach } from 'vitest';

// A page outlives the tests of its file, for files share a worker: what one leaves behind would be found by the next.
if (typeof document !== 'undefined') {
  const { cleanup } = await import('@testing-library/react');
  afterEach(cleanup);
  afterAll(() => {
    document.body.replaceChildren();
    localStorage.clear();
    sessionStorage.clear();
  });
}
