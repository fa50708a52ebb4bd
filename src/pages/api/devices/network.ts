import { networkSchema } from '../../../server/devices/contract';
import { devicesView } from '../../../server/devices/view';
import { refuseGuests, setNetwork } from '../../../server/devices/writes';
import { readJson } from '../../../server/http/body';
import { endpoint, json } from '../../../server/http/endpoint';

export const PATCH = endpoint(async (database, { request, locals }) => {
  refuseGuests(locals.caller);
  await setNetwork(database, await readJson(request, networkSchema));
  return json(await devicesView(database, locals.caller));
});
