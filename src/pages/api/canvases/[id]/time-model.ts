import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { timeModelView } from '../../../../server/sections/timeModel';

export const GET = canvasEndpoint(async (database) => json(await timeModelView(database)));
