import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { othersOnBench } from '../../../../server/shelf/view';

export const GET = canvasEndpoint(async (database, canvas) => json(await othersOnBench(database, canvas.id)));
