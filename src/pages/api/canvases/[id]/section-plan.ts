import { sectionPlanOf } from '../../../../data/sections';
import { canvasEndpoint, json } from '../../../../server/http/endpoint';

export const GET = canvasEndpoint(async (database, canvas) => json(await sectionPlanOf(database, canvas)));
