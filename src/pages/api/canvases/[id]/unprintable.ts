import { canvasEndpoint, json } from '../../../../server/http/endpoint';
import { unprintableView } from '../../../../server/labels/view';

export const GET = canvasEndpoint(async (database, canvas) => json(await unprintableView(database, canvas)));
