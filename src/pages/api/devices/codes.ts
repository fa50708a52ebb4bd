import { refuseGuests, showCode } from '../../../server/devices/writes';
import { endpoint, json } from '../../../server/http/endpoint';

export const POST = endpoint(async (_, { locals }) => {
  refuseGuests(locals.caller);
  return json(await showCode(), 201);
});
