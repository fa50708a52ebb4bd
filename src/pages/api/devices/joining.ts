import { joinSchema } from '../../../server/devices/contract';
import { join, sessionCookie } from '../../../server/devices/joining';
import { readJson } from '../../../server/http/body';
import { endpoint, json } from '../../../server/http/endpoint';
import { conflict } from '../../../server/http/problem';

export const POST = endpoint(async (database, { request, locals: { caller } }) => {
  const wish = await readJson(request, joinSchema);
  if (caller === null) throw conflict('The machine on which Oculent runs needs not join.');
  const { device, token } = await join(database, wish, caller.address);
  const answer = json(device, 201);
  answer.headers.set('set-cookie', sessionCookie(token));
  return answer;
});
