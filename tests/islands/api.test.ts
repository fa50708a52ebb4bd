import { afterEach, expect, it, vi } from 'vitest';
import {
  getBitmap,
  getBytes,
  getFile,
  getJson,
  NoAnswer,
  sendFile,
  sendJson,
} from '../../src/islands/writing/api';

vi.mock('../../src/islands/writing/screen', () => ({ theScreen: () => ({ own: () => 'here' }) }));
vi.mock('../../src/islands/writing/program', () => ({ theProgram: () => ({ heard: () => {} }) }));
afterEach(() => vi.unstubAllGlobals());

it('an answer that breaks off is none, whatever was asked', async () => {
  vi.stubGlobal('fetch', async () => {
    const half = new ReadableStream({
      start(stream) {
        stream.enqueue(new TextEncoder().encode('{"laid":'));
        setTimeout(() => stream.error(new DOMException('signal timed out', 'TimeoutError')));
      },
    });
    return new Response(half);
  });
  for (const asked of [
    getJson('/api/a'),
    getBitmap('c1'),
    getBytes('/api/b'),
    sendJson('POST', '/api/c', {}),
    sendFile('PUT', '/api/d', null, 'text/csv'),
    getFile('/api/e', new AbortController().signal),
  ]) {
    await expect(asked).rejects.toBeInstanceOf(NoAnswer);
  }
});
