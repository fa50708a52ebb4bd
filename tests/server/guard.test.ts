import { describe, expect, it, vi } from 'vitest';
import { object, string } from 'yup';
import { readBody, readJson } from '../../src/server/endpoint';
import { addSecurityHeaders, refuseForeign } from '../../src/server/guard';
import { Problem, problemResponse } from '../../src/server/problem';

function request(method: string, headers: Record<string, string>): Request {
  return { method, headers: new Headers(headers) } as Request;
}

describe('who may write', () => {
  const host = '127.0.0.1:4470';

  it.each([
    [{ host }],
    [{ host, origin: 'http://127.0.0.1:4470', 'sec-fetch-site': 'same-origin' }],
    [{ host: 'localhost:4470', origin: 'http://localhost:4470' }],
  ])('the page itself and programs on this machine: %j', (headers) => {
    expect(() => refuseForeign(request('POST', headers))).not.toThrow();
  });

  it.each([
    [{ host, origin: 'http://elsewhere.example', 'sec-fetch-site': 'cross-site' }],
    [{ host, origin: 'null' }],
    [{ host, 'sec-fetch-site': 'same-site' }],
    [{ host, origin: 'http://127.0.0.1:9999' }],
  ])('no other site: %j', (headers) => {
    expect(() => refuseForeign(request('PUT', headers))).toThrow(
      'Another web site may not change anything here.',
    );
  });

  it('nobody under a foreign name, not even to read', () => {
    expect(() => refuseForeign(request('GET', { host: 'elsewhere.example' }))).toThrow(
      'only under localhost',
    );
    expect(() => refuseForeign(request('GET', { host: '127.0.0.1.elsewhere.example' }))).toThrow(
      'only under localhost',
    );
    expect(() => refuseForeign(request('GET', { host: '[::1]:4470' }))).not.toThrow();
  });
});

describe('headers', () => {
  it('allow nothing to answers that are no pages', () => {
    const response = new Response('{}', { headers: { 'content-type': 'application/json' } });
    addSecurityHeaders(response);
    expect(response.headers.get('content-security-policy')).toContain("default-src 'none'");
    expect(response.headers.get('x-content-type-options')).toBe('nosniff');
    expect(response.headers.get('cache-control')).toBe('no-store');
  });
});

describe('bodies', () => {
  const post = (body: BodyInit) => new Request('http://localhost/', { method: 'POST', body });

  it('are read up to their limit and no farther', async () => {
    expect(await readBody(post('12345'), 5)).toHaveLength(5);
    await expect(readBody(post('123456'), 5)).rejects.toMatchObject({ status: 413 });
  });

  it('that lie about their length are stopped while they arrive', async () => {
    let sent = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull(controller) {
        sent += 1000;
        controller.enqueue(new Uint8Array(1000));
      },
    });
    const lying = new Request('http://localhost/', {
      method: 'POST',
      body: endless,
      duplex: 'half',
    } as RequestInit);
    await expect(readBody(lying, 10_000)).rejects.toMatchObject({ status: 413 });
    expect(sent).toBeLessThan(20_000);
  });

  it('must be JSON that fits its schema', async () => {
    const schema = object({ name: string().required('Give a name.') });
    await expect(readJson(post('{'), schema)).rejects.toMatchObject({ status: 400 });
    await expect(readJson(post('{}'), schema)).rejects.toThrow('Give a name.');
    await expect(readJson(post('{"name":"a"}'), schema)).resolves.toEqual({ name: 'a' });
  });
});

describe('problem responses', () => {
  it('follow RFC 9457', async () => {
    const response = problemResponse(new Problem(409, 'Title', 'A sentence.', { extra: 1 }));
    expect(response.status).toBe(409);
    expect(response.headers.get('content-type')).toBe('application/problem+json');
    expect(await response.json()).toEqual({ title: 'Title', status: 409, detail: 'A sentence.', extra: 1 });
  });

  it('tell nothing of the inside when something breaks', async () => {
    const log = vi.spyOn(console, 'error').mockImplementation(() => {});
    const body = await problemResponse(new Error('secret path /x')).text();
    expect(body).not.toContain('secret');
    expect(body).toContain('Nothing was changed');
    expect(log).toHaveBeenCalledOnce();
    log.mockRestore();
  });
});
