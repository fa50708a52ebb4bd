import { endSessions, homeNetworkSetting, putHomeNetworkSetting } from '../../data/devices';
import type { Database } from '../../data/engine/database';
import { conflict, Problem } from '../http/problem';
import { openHub } from '../live/hub';
import type { Caller } from './caller';
import type { CodeView } from './contract';
import { theHomeNetwork } from './homeNetwork';
import { openCode } from './joining';
import { hashPassphrase } from './passphraseHash';
import { mayManage } from './view';

/** @throws Problem 403 for a device that joined by a code */
export function refuseGuests(caller: Caller | null): void {
  if (mayManage(caller)) return;
  throw new Problem(
    403,
    'Not at this device',
    'This can be changed at the machine itself, or at a device that joined with the passphrase.',
  );
}

/** Ends what lets a device in, and what it follows. @param device null for all */
export async function signOut(database: Database, device: string | null): Promise<void> {
  await endSessions(database, device);
  await (await openHub())?.dropDevice(device);
}

/** What of the home network shall change. */
export interface NetworkWish {
  on?: boolean | undefined;
  deskName?: string | undefined;
  passphrase?: string | null | undefined;
}

/** Changes how the home network is set, and switches it. @throws Problem when it does not come on */
export async function setNetwork(database: Database, wish: NetworkWish): Promise<void> {
  const network = theHomeNetwork();
  if (wish.on === true && !network) {
    throw conflict('The home network is only there in the built program, not in the development server.');
  }
  const passphrase =
    typeof wish.passphrase === 'string' ? await hashPassphrase(wish.passphrase) : wish.passphrase;
  const setting = await database.transaction(async (queries) => {
    const before = await homeNetworkSetting(queries);
    const after = {
      on: wish.on ?? before.on,
      deskName: wish.deskName ?? before.deskName,
      passphrase: passphrase === undefined ? before.passphrase : passphrase,
    };
    await putHomeNetworkSetting(queries, after);
    return after;
  });
  if (wish.on !== undefined) await (setting.on ? network?.turnOn() : network?.turnOff());
}

/** Opens a code, with the addresses at which a device may use it. @throws Problem while the home network is off */
export async function showCode(): Promise<CodeView> {
  const state = theHomeNetwork()?.state();
  if (!state?.listening) throw conflict('Switch the home network on first; then a device can join.');
  const { code, seconds } = openCode();
  const { toString: qrText } = await import('qrcode');
  const ways = await Promise.all(
    state.hosts.map(async (host) => {
      const url = `https://${host}:${state.port}/join`;
      // After the #, so that the code stands in no log and no history of a server.
      return {
        url,
        qr: await qrText(`${url}#${code}`, { type: 'svg', errorCorrectionLevel: 'M', margin: 2 }),
      };
    }),
  );
  return { code, seconds, ways };
}
