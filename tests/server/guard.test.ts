import { describe, expect, it, vi } from 'vitest';
import { Refusal } from '../../src/core/refusal';
import { readBody, readJson } from '../../src/server/http/body';
import { addSecurityHeaders, refuseForeign } from '../../src/server/http/guard';
import { Problem, problemResponse } from '../../src/server/http/problem';
import { array, object, string, wholeNumbers } from '../../src/server/http/schema';

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
  const post = (body: BodyInit, type = 'application/json') =>
    new Request('http://localhost/', { method: 'POST', body, headers: { 'content-type': type } });

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

  it('that break off are the caller’s doing, and nothing that is logged', async () => {
    const logged = vi.spyOn(console, 'error').mockImplementation(() => {});
    const broken = new Request('http://localhost/', {
      method: 'POST',
      body: new ReadableStream<Uint8Array>({
        start: (controller) => controller.enqueue(new Uint8Array(10)),
        pull: (controller) => controller.error(new Error('aborted')),
      }),
      duplex: 'half',
    } as RequestInit);
    const problem = await readBody(broken, 10_000).catch((error: unknown) => problemResponse(error));
    expect(await (problem as Response).json()).toMatchObject({ status: 400, title: 'Broken off' });
    expect(logged).not.toHaveBeenCalled();
    logged.mockRestore();
  });

  it('must be JSON that fits its schema', async () => {
    const schema = object({ name: string().required('Give a name.') });
    await expect(readJson(post('{'), schema)).rejects.toMatchObject({ status: 400 });
    await expect(readJson(post('{}'), schema)).rejects.toThrow('Give a name.');
    await expect(readJson(post('{"name":"a"}'), schema)).resolves.toEqual({ name: 'a' });
  });

  it('say what they are: another type is refused, another encoding is read or refused, never garbled', async () => {
    const schema = object({ name: string().required() });
    const latin = Uint8Array.from('{"name":"Möwe"}', (sign) => sign.charCodeAt(0));
    await expect(readJson(post('{"name":"a"}', 'text/plain'), schema)).rejects.toMatchObject({ status: 415 });
    await expect(readJson(post(latin, 'application/json; charset=iso-8859-1'), schema)).resolves.toEqual({
      name: 'Möwe',
    });
    await expect(readJson(post(latin), schema)).rejects.toThrow('not UTF-8 text');
    await expect(readJson(post(latin, 'application/json; charset=klingon'), schema)).rejects.toThrow(
      'The encoding “klingon” is not known here.',
    );
  });

  it('are told in sentences where the schema library would name a path', async () => {
    const schema = object({ lines: array(object({ code: string().required() })).max(3) });
    const told = (value: unknown) =>
      readJson(post(JSON.stringify(value)), schema).catch((error: Error) => error.message);
    expect(await told({ lines: [{ code: '1' }, {}] })).toBe('“code” of entry 2 in “lines” is missing.');
    expect(await told({ lines: [1] })).toBe('Entry 1 in “lines” must be an object.');
    expect(await told([])).toBe('The request must be an object.');
  });

  it('are refused by the length of a list or the depth of their nesting before a schema sees them', async () => {
    const schema = object({
      tips: array(string().required()).max(20),
      runs: wholeNumbers(4, 'Pairs, please.'),
    });
    const looked = vi.fn(() => true);
    const inner = object({ all: array(object().test('looked', 'x', looked)).max(2) });
    await expect(readJson(post(`{"tips":[${'1,'.repeat(299_999)}1]}`), schema)).rejects.toThrow(
      '“tips” has 300,000 entries; at most 20 are taken.',
    );
    await expect(readJson(post('{"all":[{},{},{}]}'), inner)).rejects.toThrow('at most 2 are taken');
    expect(looked).not.toHaveBeenCalled();
    await expect(readJson(post('['.repeat(100_000)), schema)).rejects.toThrow('nested deeper than 24 levels');
    // Fewer of them are still named by their list.
    const entries = (n: number) => post(`{"tips":[${'{},'.repeat(n - 1)}{}]}`);
    await expect(readJson(entries(99_998), schema)).rejects.toThrow('“tips” has 99,998 entries');
    await expect(readJson(entries(300_000), schema)).rejects.toThrow('more than 100,000 entries');
    await expect(readJson(post('{"runs":[0,1,2.5,1]}'), schema)).rejects.toThrow('Pairs, please.');
    await expect(readJson(post('{"runs":[0,1,"2",1]}'), schema)).rejects.toThrow('Pairs, please.');
    await expect(readJson(post('{"runs":[0,1,2,1,4,1]}'), schema)).rejects.toThrow('Pairs, please.');
    await expect(readJson(post('{"runs":[0,1]}'), schema)).resolves.toEqual({ runs: [0, 1] });
  });
});

describe('problem responses', () => {
  it('follow RFC 9457', async () => {
    const response = problemResponse(new Problem(409, 'Title', 'A sentence.', { extra: 1 }));
    expect(response.status).toBe(409);
    expect(response.headers.get('content-type')).toBe('application/problem+json');
    expect(await response.json()).toEqual({
      type: 'urn:oculent:problem:title',
      title: 'Title',
      status: 409,
      detail: 'A sentence.',
      extra: 1,
    });
  });

  it('show the words of a refusal, never those of a native error', async () => {
    const log = vi.spyOn(console, 'error').mockImplementation(() => {});
    expect(await problemResponse(new Refusal('The sheet is empty.')).json()).toMatchObject({
      status: 422,
      detail: 'The sheet is empty.',
    });
    expect(problemResponse(new RangeError('Maximum call stack size exceeded')).status).toBe(500);
    log.mockRestore();
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
