import { afterEach, describe, expect, it, vi } from 'vitest';
import { array, number, object, string, ValidationError } from 'yup';
import { Refusal } from '../../src/core/refusal';
import { DataFault } from '../../src/data/engine/dataFault';
import { mediaType, readBody, readJson, readQuery } from '../../src/server/http/body';
import { conflict, notFound, Problem, problemResponse } from '../../src/server/http/problem';

afterEach(() => void vi.restoreAllMocks());

const send = (body: BodyInit | null, type = 'application/json', headers: Record<string, string> = {}) =>
  new Request('http://here.example/', {
    method: 'POST',
    body,
    headers: { 'content-type': type, ...headers },
    duplex: 'half',
  } as RequestInit);
const schema = object({
  title: string().trim(),
  drills: number(),
  tips: array().of(number()).max(3),
  pairs: array().of(object({ cells: array().of(number()).length(2) })),
  names: array().of(string()),
});
const read = (value: unknown) => readJson(send(JSON.stringify(value)), schema);

describe('what a request says of its body', () => {
  it.each([
    ['application/json', 'application/json', null],
    [' Application/JSON ; charset=UTF-8', 'application/json', 'utf-8'],
    ['text/csv;header=present; charset = "latin1" ', 'text/csv', 'latin1'],
    ['text/csv; mycharset=utf-16', 'text/csv', null],
    ['text/csv; charset=utf-8 or so', 'text/csv', null],
    ['', '', null],
  ])('%j is %s in %s', (said, type, charset) => {
    const request = { headers: { get: () => said } } as unknown as Request;
    expect(mediaType(request)).toEqual({ type, charset });
  });
});

describe('a request in JSON', () => {
  it('is read, cut to what the schema says', async () => {
    expect(await read({ title: '  Kingfisher ', drills: 3, tips: [1, 2, 3] })).toMatchObject({
      title: 'Kingfisher',
      drills: 3,
      tips: [1, 2, 3],
    });
    const latin = Buffer.from('{"title":"Café"}', 'latin1');
    const request = send(latin, 'application/json; charset=iso-8859-1');
    expect(await readJson(request, schema)).toMatchObject({ title: 'Café' });
  });

  it.each([
    ['text/plain', '{}', 415, 'Not JSON', 'content-type: application/json'],
    ['application/json', '{"title":', 400, 'Not JSON', 'is not JSON'],
    ['application/json', '', 400, 'Not JSON', 'is not JSON'],
    [
      'application/json',
      `${'['.repeat(25)}${']'.repeat(25)}`,
      400,
      'Not JSON',
      'nested deeper than 24 levels',
    ],
  ])('as %s that is %j is refused with %i', async (type, body, status, title, words) => {
    const refused = readJson(send(body, type), schema);
    await expect(refused).rejects.toMatchObject({
      status,
      title,
      detail: expect.stringContaining(words),
    });
  });

  it.each([
    ['a list', { tips: [1, 2, 3, 4] }, '“tips” has 4 entries; at most 3 are taken'],
    ['a list in a list', { pairs: [{ cells: [1, 2, 3] }] }, '“cells” has 3 entries; at most 2 are taken'],
    [
      'a list of which nothing is said',
      { names: new Array(10_001).fill('') },
      '10,001 entries; at most 10,000',
    ],
    ['all of it', { names: new Array(100_001).fill([]) }, 'more than 100,000 entries'],
  ])('%s that is too long is refused before it is looked at', async (_, value, words) => {
    const looked = vi.spyOn(schema, 'validate');
    await expect(read(value)).rejects.toThrow(words);
    expect(looked).not.toHaveBeenCalled();
  });

  it.each([
    ['NUL', '{"title":"a\\u0000b"}'],
    ['the first half of a sign', '{"title":"\\ud83d"}'],
    ['the second half of a sign', '{"title":"\\ude00 first"}'],
    ['NUL in a name', '{"a\\u0000":1}'],
    ['NUL deep within', '{"pairs":[{"note":["\\u0000"]}]}'],
  ])('%s is refused: no database keeps it', async (_, body) => {
    await expect(readJson(send(body), schema)).rejects.toMatchObject({
      status: 422,
      title: 'Cannot be kept',
      detail: expect.stringContaining('NUL, or half a sign'),
    });
  });

  it('a whole sign, and null, are kept, however they are written', async () => {
    const body = '{"title":"\\ud83d\\ude00 \\\\u0000","drills":null}';
    await expect(readJson(send(body), object({ title: string() }))).resolves.toEqual({
      title: '😀 \\u0000',
      drills: null,
    });
  });

  it('of the wrong kind throughout is told in a sentence, and faults of the schema are its own', async () => {
    const broken = object({
      title: string().transform(() => {
        throw new TypeError('inside');
      }),
    });
    await expect(readJson(send('{"title":1}'), broken)).rejects.toMatchObject({
      status: 422,
      detail: 'A part of the request is of the wrong kind.',
    });
    await expect(read({ drills: 'many' })).rejects.toBeInstanceOf(ValidationError);
  });

  it('in a query is checked alike', async () => {
    const of = (query: string) => readQuery(new URL(`http://here.example/?${query}`), schema);
    expect(await of('drills=12&title=x')).toEqual({ drills: 12, title: 'x' });
    await expect(of('title=%00')).rejects.toMatchObject({ title: 'Cannot be kept' });
    await expect(of('drills=many')).rejects.toBeInstanceOf(ValidationError);
  });
});

describe('a body', () => {
  it('is read to its limit, and no further than that', async () => {
    let sent = 0;
    const long = new ReadableStream<Uint8Array>({
      pull(controller) {
        if (++sent > 100) controller.close();
        else controller.enqueue(new Uint8Array(1000));
      },
    });
    await expect(readBody(send(long as BodyInit), 5000)).rejects.toMatchObject({
      status: 413,
      detail: expect.stringContaining('more than the 0.005 MB'),
    });
    expect(sent).toBeLessThan(10);
    expect(await readBody(send(new Uint8Array(5000)), 5000)).toHaveLength(5000);
    expect(await readBody(new Request('http://here.example/'), 5000)).toHaveLength(0);
  });

  it('that says it is too long is not read at all', async () => {
    const request = send(new Uint8Array(4), 'text/csv', { 'content-length': '6000' });
    await expect(readBody(request, 5000)).rejects.toMatchObject({ status: 413 });
    expect(request.bodyUsed).toBe(false);
  });

  it('that breaks off is the caller’s affair', async () => {
    const broken = new ReadableStream<Uint8Array>({
      pull: (controller) => controller.error(new Error('gone')),
    });
    await expect(readBody(send(broken as BodyInit), 5000)).rejects.toMatchObject({
      status: 400,
      title: 'Broken off',
    });
  });
});

describe('a refusal', () => {
  const answer = async (error: unknown) => {
    const response = problemResponse(error);
    expect(response.headers.get('content-type')).toBe('application/problem+json');
    return { answered: response.status, ...(await response.json()) };
  };

  it.each([
    [new Refusal('Count again.'), 422, 'Cannot be read', 'Count again.'],
    [notFound('canvas'), 404, 'Not here', 'There is no canvas here. It may have been deleted.'],
    [new DataFault('disk', 'The disk is full.'), 507, 'The disk', 'The disk is full.'],
    [new DataFault('missing', 'It is gone.'), 503, 'The database', 'It is gone.'],
    [Object.assign(new Error('x'), { code: '22021' }), 422, 'Cannot be kept', expect.any(String)],
    [Object.assign(new Error('x'), { code: '22P05' }), 422, 'Cannot be kept', expect.any(String)],
    [Object.assign(new Error('x'), { code: '53100' }), 507, 'The disk', expect.stringContaining('is full')],
    [new RangeError('Maximum call stack'), 500, 'A fault of Oculent', expect.stringContaining('our side')],
    ['thrown text', 500, 'A fault of Oculent', expect.stringContaining('our side')],
    [undefined, 500, 'A fault of Oculent', expect.stringContaining('our side')],
  ])('%s is answered with %i', async (error, status, title, detail) => {
    const logged = vi.spyOn(console, 'error').mockImplementation(() => {});
    const said = await answer(error);
    expect(said).toMatchObject({ answered: status, status, title, detail });
    expect(JSON.stringify(said)).not.toContain('call stack');
    // What the caller can mend is no fault of ours.
    expect(logged).toHaveBeenCalledTimes(status === 500 || error instanceof DataFault ? 1 : 0);
  });

  it('has a type by its title and says more where there is more; of many faults the first is its sentence', async () => {
    expect(await answer(conflict('Already there.', { drills: 7 }))).toEqual({
      answered: 409,
      type: 'urn:oculent:problem:does-not-fit-what-is-there',
      title: 'Does not fit what is there',
      status: 409,
      detail: 'Already there.',
      drills: 7,
    });
    const faults = ['Give a title.', 'Give a size.'];
    expect(
      await answer(new ValidationError(faults.map((fault) => new ValidationError(fault)))),
    ).toMatchObject({
      status: 422,
      detail: 'Give a title.',
      errors: faults,
    });
    expect(new Problem(410, 'Over', 'Too late.').message).toBe('Too late.');
  });
});
