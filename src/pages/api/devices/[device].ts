import { freeName } from '../../../core/devices/device';
import { devicesOf, renameDevice } from '../../../data/devices';
import { deviceNameSchema } from '../../../server/devices/contract';
import { devicesView } from '../../../server/devices/view';
import { refuseGuests, signOut } from '../../../server/devices/writes';
import { readJson } from '../../../server/http/body';
import { endpoint, isUuid, json } from '../../../server/http/endpoint';
import { notFound } from '../../../server/http/problem';

/** Gives a device another name. */
export const PATCH = endpoint(async (database, { params: { device }, locals, request }) => {
  const { name } = await readJson(request, deviceNameSchema);
  if (!isUuid(device)) throw notFound('such device');
  if (device !== locals.caller?.device?.id) refuseGuests(locals.caller);
  const others = (await devicesOf(database)).filter(({ id }) => id !== device);
  const free = freeName(
    name,
    others.map((other) => other.name),
  );
  if (!(await renameDevice(database, device, free))) throw notFound('such device');
  return json(await devicesView(database, locals.caller));
});

/** Signs a device out. */
export const DELETE = endpoint(async (database, { params: { device }, locals }) => {
  if (!isUuid(device)) throw notFound('such device');
  if (device !== locals.caller?.device?.id) refuseGuests(locals.caller);
  await signOut(database, device);
  return json(await devicesView(database, locals.caller));
});
