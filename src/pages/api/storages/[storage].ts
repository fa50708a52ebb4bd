import { storagesOf } from '../../../data/storage';
import { readJson } from '../../../server/http/body';
import { endpoint, json } from '../../../server/http/endpoint';
import { unreadable } from '../../../server/http/problem';
import { storageSchema } from '../../../server/storage/contract';
import { giveStorageAway, saveStorage } from '../../../server/storage/writes';

export const PUT = endpoint(async (database, { request, params }) => {
  const storage = await readJson(request, storageSchema);
  if (storage.id !== params.storage)
    throw unreadable('The id in the address and in the case must be the same.');
  await saveStorage(database, storage);
  return json(await storagesOf(database));
});

export const DELETE = endpoint(async (database, { params }) => {
  await giveStorageAway(database, params.storage ?? '');
  return json(await storagesOf(database));
});
