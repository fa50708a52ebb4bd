import { request as httpRequest } from 'node:http';
import { expect, shelve, test } from './bench';

test.describe('the fence around the data', () => {
  test('another site may not write', async ({ request }) => {
    const id = await shelve(request, 'Fenced');
    for (const headers of [{ origin: 'http://elsewhere.example' }, { 'sec-fetch-site': 'cross-site' }]) {
      const answer = await request.post(`/api/canvases/${id}/bags`, {
        headers,
        data: { id: crypto.randomUUID(), line: 1 },
      });
      expect(answer.status()).toBe(403);
    }
    const removal = await request.delete(`/api/canvases/${id}`, {
      headers: { origin: 'http://elsewhere.example' },
    });
    expect(removal.status()).toBe(403);
    expect((await (await request.get(`/api/canvases/${id}/bags`)).json()).bags).toEqual([]);
  });

  test('a foreign host name gets no answer', async ({ request }) => {
    const answer = await request.get('/api/canvases', { headers: { host: 'elsewhere.example' } });
    expect(answer.status()).toBe(403);
  });

  test('pages carry a content policy without unsafe scripts, and the other headers', async ({ request }) => {
    const headers = (await request.get('/')).headers();
    const policy = headers['content-security-policy'] ?? '';
    expect(policy).toContain("default-src 'self'");
    expect(policy).toContain("object-src 'none'");
    expect(policy).not.toContain('unsafe-inline');
    expect(policy).not.toContain('unsafe-eval');
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['x-frame-options']).toBe('DENY');
  });

  test('uploads are limited', async ({ request }) => {
    const id = await shelve(request, 'Large');
    const answer = await request.put(`/api/canvases/${id}/chart`, {
      headers: { 'content-type': 'image/png' },
      data: Buffer.alloc(21_000_000),
    });
    expect(answer.status()).toBe(413);
    const odd = await request.put(`/api/canvases/${id}/chart`, {
      headers: { 'content-type': 'application/pdf' },
      data: Buffer.from('%PDF-1.7'),
    });
    expect(odd.status()).toBe(415);
  });

  test('a repeated request adds nothing', async ({ request }) => {
    const data = {
      id: crypto.randomUUID(),
      title: 'Once',
      shape: 'round',
      pitchMm: 2.8,
      width: 10,
      height: 10,
    };
    expect((await request.post('/api/canvases', { data })).status()).toBe(201);
    expect((await request.post('/api/canvases', { data })).status()).toBe(201);
    const other = await request.post('/api/canvases', { data: { ...data, title: 'Twice' } });
    expect(other.status()).toBe(409);
    const mine = (await (await request.get('/api/canvases')).json()).filter(
      (entry: { canvas: { id: string } }) => entry.canvas.id === data.id,
    );
    expect(mine).toHaveLength(1);
    expect(mine[0].canvas.title).toBe('Once');
    expect((await request.delete(`/api/canvases/${data.id}`)).status()).toBe(204);
  });

  test('sheet and chart come out as they went in', async ({ request }) => {
    const id = await shelve(request, 'Round trip');
    const csv = await (await request.get(`/api/canvases/${id}/sheet.csv`)).text();
    const reading = await (
      await request.post('/api/sheet-readings', { data: csv, headers: { 'content-type': 'text/csv' } })
    ).json();
    const { lines } = await (await request.get(`/api/canvases/${id}/sheet`)).json();
    expect(reading.lines).toEqual(lines);
    const before = await (await request.get(`/api/canvases/${id}/chart`)).body();
    const grid = await (await request.get(`/api/canvases/${id}/chart.csv`)).body();
    const put = await request.put(`/api/canvases/${id}/chart`, {
      data: grid,
      headers: { 'content-type': 'text/csv' },
    });
    expect(put.ok()).toBe(true);
    expect(await (await request.get(`/api/canvases/${id}/chart`)).body()).toEqual(before);
  });

  test('what no route should see is refused at the door', async ({ serverUrl, request }) => {
    const raw = (method: string, path: string) =>
      new Promise<{ status: number; allow: string | undefined }>((resolve, reject) => {
        const sent = httpRequest(
          { host: '127.0.0.1', port: new URL(serverUrl).port, method, path, headers: { origin: serverUrl } },
          (response) => {
            response.resume();
            resolve({ status: response.statusCode!, allow: response.headers.allow });
          },
        );
        sent.on('error', reject);
        sent.end();
      });
    const id = await shelve(request, 'Behind the door', false);
    // Folded up, this would delete the canvas.
    expect((await raw('DELETE', `/api/canvases/${id}/inspection/%2e%2e`)).status).toBe(400);
    expect((await raw('DELETE', `/api/canvases/${id}/inspection/..`)).status).toBe(400);
    expect((await raw('GET', `/api/canvases/${id}`)).status).toBe(200);
    expect((await raw('TRACE', '/')).status).toBe(405);
    expect(await raw('PUT', '/api/tips/')).toMatchObject({ status: expect.any(Number) });
    expect(await raw('PATCH', '/api/tips')).toEqual({ status: 405, allow: 'GET, PUT, HEAD' });
    expect(await raw('POST', `/api/canvases/${id}/bitmap`)).toEqual({ status: 405, allow: 'GET, HEAD' });
    expect((await raw('GET', '/_image?href=/mark.svg&w=10')).status).toBe(404);
    expect((await raw('GET', '/%00')).status).toBe(400);
  });
});
