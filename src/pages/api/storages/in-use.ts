import { takenSlots } from '../../../data/storage';
import { endpoint, json } from '../../../server/http/endpoint';
import type { TakenSlotView } from '../../../server/storage/contract';

export const GET = endpoint(async (database) => {
  const taken: TakenSlotView[] = await takenSlots(database);
  return json(taken);
});
