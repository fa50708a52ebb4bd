import { devicesOf, homeNetworkSetting } from '../../data/devices';
import type { Queries } from '../../data/engine/database';
import type { Caller } from './caller';
import type { DevicesView } from './contract';
import { theHomeNetwork } from './homeNetwork';
import { openCodeSeconds, wasWithdrawn, wrongTries } from './joining';

/** Whether a request may change who comes in. @param caller null at the machine itself */
export function mayManage(caller: Caller | null): boolean {
  return caller === null || caller.device?.joinedBy === 'passphrase';
}

export async function devicesView(queries: Queries, caller: Caller | null): Promise<DevicesView> {
  const setting = await homeNetworkSetting(queries);
  const state = theHomeNetwork()?.state();
  return {
    mayManage: mayManage(caller),
    network: {
      on: setting.on || (state?.listening ?? false),
      listening: state?.listening ?? false,
      urls: homeOrigins(),
      fingerprint: state?.fingerprint ?? null,
      fault: state
        ? state.fault
        : 'The home network is only there in the built program, not in the development server.',
      hasPassphrase: setting.passphrase !== null || Boolean(process.env.OCULENT_PASSPHRASE),
      deskName: setting.deskName,
    },
    codeSeconds: openCodeSeconds(),
    codeWithdrawn: wasWithdrawn(),
    devices: (await devicesOf(queries)).map((device) => ({
      ...device,
      own: device.id === caller?.device?.id,
    })),
    wrongTries: mayManage(caller) ? wrongTries() : [],
  };
}

/**
 * Addresses under which devices of the house find this machine, each as a link begins; none while the home network is off.
 */
export function homeOrigins(): string[] {
  const state = theHomeNetwork()?.state();
  return state?.listening ? state.hosts.map((host) => `https://${host}:${state.port}`) : [];
}
