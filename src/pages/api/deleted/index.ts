import { deletedThings } from '../../../data/deleted';
import { endpoint, json } from '../../../server/http/endpoint';

export const GET = endpoint(async (database) => json(await deletedThings(database)));
