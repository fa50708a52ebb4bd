import { createHash, randomBytes, randomUUID, timingSafeEqual } from 'node:crypto';
import { type Device, freeName, SIGNED_IN_DAYS } from '../../core/devices/device';
import { Guesses, type WrongTries } from '../../core/devices/guesses';
import { CODE_MINUTES, drawCode, MOST_WRONG_CODES, readCode } from '../../core/devices/joinCode';
import { addDevice, devicesOf, homeNetworkSetting, type JoinedBy } from '../../data/devices';
import type { Database } from '../../data/engine/database';
import { Problem } from '../http/problem';
import { isPassphrase } from './passphraseHash';

/** A clock that never goes back, in milliseconds: who sets the machine's clock does not make a code live longer. */
const now = () => performance.now();

/** What all copies of this module share: the start script and the pages have one each. */
interface Shared {
  guesses: Guesses;
  /** The code that may be used, by its hash. */
  open: { hash: Buffer; until: number; wrong: number } | null;
  /** Why there is none any more, for who asks. */
  withdrawn: boolean;
}
const holder = globalThis as typeof globalThis & { oculentJoining?: Shared };
holder.oculentJoining ??= { guesses: new Guesses(), open: null, withdrawn: false };
const shared = holder.oculentJoining;

const COOKIE = '__Host-oculent';
const TOKEN_BYTES = 32;

/** Opens a new code in place of the last one. @returns as it is shown, once */
export function openCode(): { code: string; seconds: number } {
  const code = drawCode(randomBytes);
  shared.open = { hash: digest(code), until: now() + CODE_MINUTES * 60_000, wrong: 0 };
  shared.withdrawn = false;
  return { code, seconds: CODE_MINUTES * 60 };
}

/** How the code that was opened last stands; null once it was used, has run out or was withdrawn. */
export function openCodeSeconds(): number | null {
  const left = shared.open ? shared.open.until - now() : 0;
  return left > 0 ? Math.ceil(left / 1000) : null;
}

export function wasWithdrawn(): boolean {
  return shared.withdrawn;
}

/** Wrong tries by address, with the seconds since the last. */
export function wrongTries(): (Omit<WrongTries, 'last'> & { secondsAgo: number })[] {
  const at = now();
  return shared.guesses
    .told(at)
    .map(({ last, ...tries }) => ({ ...tries, secondsAgo: Math.round((at - last) / 1000) }));
}

export interface JoinWish {
  code: string | null;
  passphrase: string | null;
  name: string;
}

/**
 * Lets a device in that knows the code or the passphrase.
 * @param address that it asks from
 * @returns the device and its token, which is kept nowhere
 * @throws Problem 401 for a wrong one, 410 for a code that is over, 429 for who guesses
 */
export async function join(
  database: Database,
  wish: JoinWish,
  address: string,
): Promise<{ device: Device; token: string }> {
  const wait = shared.guesses.waitMs(address, now());
  if (wait > 0) {
    const seconds = Math.ceil(wait / 1000);
    throw new Problem(
      429,
      'Too many tries',
      `That was wrong several times. Wait ${seconds} ${seconds === 1 ? 'second' : 'seconds'}, then try again.`,
      { seconds },
    );
  }
  const joinedBy: JoinedBy = wish.code !== null ? 'code' : 'passphrase';
  if (wish.code !== null) takeCode(wish.code, address);
  else await checkPassphrase(database, wish.passphrase ?? '', address);
  shared.guesses.right(address);
  const token = randomBytes(TOKEN_BYTES).toString('base64url');
  const device = await database.transaction(async (queries) => {
    const all = await devicesOf(queries);
    // Records name devices, so no two are called alike; one that was signed out and comes back is the same again.
    const back = all.find(({ name, lastSeenAt }) => lastSeenAt === null && name === wish.name);
    const mine = back ?? {
      id: randomUUID(),
      name: freeName(
        wish.name,
        all.map(({ name }) => name),
      ),
    };
    await addDevice(queries, {
      id: mine.id,
      name: mine.name,
      joinedBy,
      address,
      tokenHash: tokenHash(token),
      at: new Date().toISOString(),
    });
    return { id: mine.id, name: mine.name };
  });
  return { device, token };
}

function takeCode(typed: string, address: string): void {
  const { open } = shared;
  const code = readCode(typed);
  if (open && open.until <= now()) {
    shared.open = null;
    // Who knows the code that has just run out did not guess.
    if (code !== null && timingSafeEqual(digest(code), open.hash)) {
      throw new Problem(410, 'Over', 'This code has run out. Let the other screen show a new one.');
    }
  }
  if (shared.open && code !== null && timingSafeEqual(digest(code), shared.open.hash)) {
    shared.open = null;
    return;
  }
  shared.guesses.wrong(address, now());
  if (shared.open && ++shared.open.wrong >= MOST_WRONG_CODES) {
    shared.open = null;
    shared.withdrawn = true;
  }
  throw new Problem(
    401,
    'Not let in',
    'This is not the code, or it was used already. Look at it again, or let the other screen show a new one.',
  );
}

async function checkPassphrase(database: Database, given: string, address: string): Promise<void> {
  // Counted before it is looked at, which takes a while: many at once are no way around the wait.
  shared.guesses.wrong(address, now());
  const { passphrase } = await homeNetworkSetting(database);
  const outside = process.env.OCULENT_PASSPHRASE;
  const known =
    (passphrase !== null && (await isPassphrase(given, passphrase))) ||
    (outside ? timingSafeEqual(digest(given.normalize('NFC')), digest(outside.normalize('NFC'))) : false);
  if (known) return;
  throw new Problem(401, 'Not let in', 'This is not the passphrase.');
}

/** What a session is known by in the database. */
export function tokenHash(token: string): string {
  return digest(token).toString('hex');
}

/** The cookie that lets a device in; `null` takes it away. */
export function sessionCookie(token: string | null): string {
  const age = token === null ? 0 : SIGNED_IN_DAYS * 86_400;
  return `${COOKIE}=${token ?? ''}; Path=/; Max-Age=${age}; HttpOnly; Secure; SameSite=Strict`;
}

/** The token in a cookie header; null where there is none that could be one. */
export function tokenOf(cookies: string | null | undefined): string | null {
  for (const each of (cookies ?? '').split(';')) {
    const [name, value = ''] = each.trim().split('=', 2);
    if (name === COOKIE && /^[\w-]{43}$/.test(value)) return value;
  }
  return null;
}

function digest(text: string): Buffer {
  return createHash('sha256').update(text).digest();
}
