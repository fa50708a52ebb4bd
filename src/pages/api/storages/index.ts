import { storagesOf } from '../../../data/storage';
import { endpoint, json } from '../../../server/http/endpoint';

export const GET = endpoint(async (database) => json(await storagesOf(database)));
