import { deletedCanvases } from '../../../data/canvas';
import { endpoint, json } from '../../../server/http/endpoint';

export const GET = endpoint(async (database) => json(await deletedCanvases(database)));
