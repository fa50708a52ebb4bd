import { storagesOf } from '../../../data/storage';
import { readJson } from '../../../server/http/body';
import { endpoint, isUuid, json } from '../../../server/http/endpoint';
import { notFound, unreadable } from '../../../server/http/problem';
import { redrawSchema } from '../../../server/storage/contract';
import { removeStorage, saveStorage } from '../../../server/storage/writes';

export const PUT = endpoint(async (database, { request, params }) => {
  const { before, ...storage } = await readJson(request, redrawSchema);
  if (storage.id !== params.storage)
    throw unreadable('The id in the address and in the case must be the same.');
  await saveStorage(database, storage, before);
  return json(await storagesOf(database));
});

export const DELETE = endpoint(async (database, { params }) => {
  if (!isUuid(params.storage)) throw notFound('such case');
  await removeStorage(database, params.storage);
  return json(await storagesOf(database));
});
