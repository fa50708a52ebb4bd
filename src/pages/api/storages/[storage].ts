import { storagesOf } from '../../../data/storages';
import { storageSchema } from '../../../server/contract/storages';
import { endpoint, json, readJson } from '../../../server/endpoint';
import { unreadable } from '../../../server/problem';
import { giveStorageAway, saveStorage } from '../../../server/storages';

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
