import { storagesOf } from '../../../data/storages';
import { endpoint, json } from '../../../server/endpoint';

export const GET = endpoint(async (database) => json(await storagesOf(database)));
