import { devicesView } from '../../../server/devices/view';
import { refuseGuests, signOut } from '../../../server/devices/writes';
import { endpoint, json } from '../../../server/http/endpoint';

export const GET = endpoint(async (database, { locals }) => json(await devicesView(database, locals.caller)));

/** Signs all devices out. */
export const DELETE = endpoint(async (database, { locals }) => {
  refuseGuests(locals.caller);
  await signOut(database, null);
  return json(await devicesView(database, locals.caller));
});
