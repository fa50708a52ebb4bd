import { createHash, timingSafeEqual } from 'node:crypto';
import type { RequestListener } from 'node:http';

const LEAST_CHARACTERS = 12;
/** Each wrong one makes all wait longer, up to a few seconds: guessing takes centuries, a slip of the finger moments. */
const SLOWER_MS = 250;
const SLOWEST_MS = 5000;
/** So long after the last wrong one, answers are quick again. */
const FORGIVEN_MS = 60_000;

/** @throws Error for a passphrase that would be guessed */
export function readPassphrase(text: string | undefined): string | null {
  if (text === undefined || text === '') return null;
  if (text.length < LEAST_CHARACTERS) {
    throw new Error(`OCULENT_PASSPHRASE must have ${LEAST_CHARACTERS} characters or more.`);
  }
  return text;
}

/**
 * Lets in only who knows the passphrase (HTTP Basic, RFC 7617; the name does not matter). For a machine that several
 * people use: the loopback address is open to all of them.
 * @param passphrase null for none @param now milliseconds of a clock
 */
export function behindPassphrase(
  listener: RequestListener,
  passphrase: string | null,
  now: () => number = Date.now,
): RequestListener {
  if (passphrase === null) return listener;
  const wanted = digestOf(passphrase);
  let wrong = 0;
  let lastWrong = 0;
  return (request, response) => {
    const said = /^Basic ([A-Za-z0-9+/=]+)$/.exec(request.headers.authorization ?? '')?.[1];
    const [, given] = said ? (/^[^:]*:(.*)$/s.exec(Buffer.from(said, 'base64').toString('utf8')) ?? []) : [];
    if (now() - lastWrong > FORGIVEN_MS) wrong = 0;
    if (given !== undefined && timingSafeEqual(digestOf(given), wanted)) return listener(request, response);
    // Who has not tried yet is asked at once.
    const delay = given === undefined ? 0 : Math.min(SLOWEST_MS, SLOWER_MS * 2 ** wrong);
    if (given !== undefined) {
      wrong++;
      lastWrong = now();
    }
    setTimeout(() => {
      response.writeHead(401, {
        'content-type': 'text/plain; charset=utf-8',
        'www-authenticate': 'Basic realm="Oculent", charset="UTF-8"',
        'cache-control': 'no-store',
      });
      response.end('Oculent asks for its passphrase. Any name will do.');
    }, delay);
  };
}

function digestOf(text: string): Buffer {
  return createHash('sha256').update(text.normalize('NFC')).digest();
}
