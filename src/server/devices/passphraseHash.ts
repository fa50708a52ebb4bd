import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';

/** Costs of scrypt (RFC 7914): 2¹⁵ blocks of 8, some 32 MB and a tenth of a second. */
const COST = { N: 2 ** 15, r: 8, p: 1 };
const KEY_BYTES = 32;

/** What a passphrase is known by: `scrypt:N:r:p:salt:key`, salt and key in base64. */
export async function hashPassphrase(passphrase: string): Promise<string> {
  const salt = randomBytes(16);
  const key = await derive(passphrase, salt, COST);
  const { N, r, p } = COST;
  return ['scrypt', N, r, p, salt.toString('base64'), key.toString('base64')].join(':');
}

/** Whether it is this passphrase; the time it takes says nothing of how much of it is right. */
export async function isPassphrase(given: string, hash: string): Promise<boolean> {
  const [kind, N, r, p, salt = '', key = ''] = hash.split(':');
  if (kind !== 'scrypt') return false;
  const wanted = Buffer.from(key, 'base64');
  const costs = { N: Number(N), r: Number(r), p: Number(p) };
  const found = await derive(given, Buffer.from(salt, 'base64'), costs);
  return found.length === wanted.length && timingSafeEqual(found, wanted);
}

/** One at a time: a crowd that guesses must not take all the memory. */
let turn: Promise<unknown> = Promise.resolve();

function derive(passphrase: string, salt: Buffer, costs: typeof COST): Promise<Buffer> {
  const mine = turn.then(
    () =>
      new Promise<Buffer>((resolve, reject) =>
        // However it was typed, the same signs are the same passphrase.
        scrypt(
          passphrase.normalize('NFC'),
          salt,
          KEY_BYTES,
          { ...costs, maxmem: 64 * 2 ** 20 },
          (error, key) => (error ? reject(error) : resolve(key)),
        ),
      ),
  );
  turn = mine.catch(() => {});
  return mine;
}
