import { describe, expect, it } from 'vitest';
import { Problem, problemResponse } from '../../src/server/http/problem';
import { readably, wantsPage } from '../../src/server/http/problemPage';

const asked = (headers: Record<string, string>, method = 'GET') =>
  new Request('http://127.0.0.1:4470/api/canvases/1/labels.pdf', {
    method,
    headers: { host: '127.0.0.1:4470', ...headers },
  });
const refused = () => problemResponse(new Problem(404, 'Not here', 'There is no <canvas> here.'));

describe('a refusal', () => {
  it('is a page for whoever follows a link, and data for a program', () => {
    expect(wantsPage(asked({ 'sec-fetch-mode': 'navigate' }))).toBe(true);
    expect(wantsPage(asked({ 'sec-fetch-mode': 'cors', accept: 'text/html' }))).toBe(false);
    expect(wantsPage(asked({ accept: 'text/html,*/*;q=0.8' }))).toBe(true);
    expect(wantsPage(asked({ accept: '*/*' }))).toBe(false);
    expect(wantsPage(asked({ 'sec-fetch-mode': 'navigate' }, 'POST'))).toBe(false);
  });

  it('says the same in words, with the way back, in the light that was chosen', async () => {
    const page = await readably(
      asked({
        'sec-fetch-mode': 'navigate',
        referer: 'http://127.0.0.1:4470/canvas/1/kitup/labels?format=dots&"',
        cookie: 'a=b; oculent-theme=evening',
      }),
      refused(),
    );
    expect([page.status, page.headers.get('content-type')]).toEqual([404, 'text/html; charset=utf-8']);
    const html = await page.text();
    expect(html).toContain('<h1>Not here</h1>');
    expect(html).toContain('There is no &#60;canvas&#62; here.');
    expect(html).toContain('href="/canvas/1/kitup/labels?format=dots&#38;%22"');
    expect(html).toContain('data-theme="evening"');
  });

  it('leads to no other site, and not to itself', async () => {
    for (const referer of [
      'https://elsewhere.example/x',
      'http://127.0.0.1:4470//elsewhere.example/x',
      'http://127.0.0.1:4470/api/canvases/1/labels.pdf',
      'x',
    ]) {
      const page = await readably(asked({ 'sec-fetch-mode': 'navigate', referer }), refused());
      expect(await page.text()).not.toContain('Back to where you were');
    }
  });

  it('stays as it is for a program, as does what is no refusal', async () => {
    expect((await readably(asked({}), refused())).headers.get('content-type')).toBe(
      'application/problem+json',
    );
    const fine = new Response('{}', { headers: { 'content-type': 'application/json' } });
    expect(await readably(asked({ 'sec-fetch-mode': 'navigate' }), fine)).toBe(fine);
  });
});
