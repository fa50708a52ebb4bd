import type { RequestListener } from 'node:http';
import { devicesOf, homeNetworkSetting } from '../../data/devices';
import type { KeptDatabase } from '../../data/engine/connection';
import { limited } from '../http/limits';
import { behindDoor } from './door';
import { HomeNetwork, setHomeNetwork, theHomeNetwork } from './homeNetwork';
import { openCode } from './joining';

/**
 * Makes the home network ready, and opens it where it is on: by its setting, or by `OCULENT_HOME_NETWORK=on` for a
 * machine without a screen, which prints a code for the first device.
 * @param port of the loopback address; the home network has the next one unless `OCULENT_HOME_PORT` names another
 * @throws Error for a setting that is none
 */
export async function openHome(
  database: KeptDatabase,
  port: number,
  listener: RequestListener,
): Promise<void> {
  const {
    OCULENT_HOME_NETWORK: wish = '',
    OCULENT_HOME_PORT: own,
    OCULENT_HOME_ADDRESSES: chosen,
  } = process.env;
  if (!['', 'on', 'off'].includes(wish)) {
    throw new Error(`OCULENT_HOME_NETWORK must be on or off, not “${wish}”.`);
  }
  const homePort = Number(own ?? port + 1);
  if (!Number.isInteger(homePort) || homePort < 1 || homePort > 65_535) {
    throw new Error(`OCULENT_HOME_PORT must be a number from 1 to 65535, not “${own}”.`);
  }
  const network = new HomeNetwork(
    database.directory,
    homePort,
    chosen,
    limited(
      behindDoor(listener, {
        queries: async () => database,
        isOurs: (host) => theHomeNetwork()?.isOurs(host) ?? false,
        now: Date.now,
      }),
    ),
  );
  setHomeNetwork(network);
  if (wish === 'off' || (wish !== 'on' && !(await homeNetworkSetting(database)).on)) return;
  await network.turnOn();
  const { hosts, listening, fault, fingerprint } = network.state();
  if (!listening) return console.error(`The home network is on, but does not listen: ${fault}`);
  console.log(
    `Other devices find Oculent at ${hosts.map((host) => `https://${host}:${homePort}/`).join(' ')}`,
  );
  if (wish === 'on' && (await devicesOf(database)).every(({ lastSeenAt }) => lastSeenAt === null)) {
    const { code } = openCode();
    const url = `https://${hosts[0]}:${homePort}/join`;
    console.log(`The first device joins with the code ${code} within ten minutes, at ${url}`);
    console.log(`Fingerprint of the authority (SHA-256): ${fingerprint}`);
    // Of dozens of files, for what few starts print.
    const { toString: qrText } = await import('qrcode');
    console.log(await qrText(`${url}#${code}`, { type: 'terminal', small: true }));
  }
}
