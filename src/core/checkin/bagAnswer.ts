import type { CountedBag } from './bag';
import type { LineSupply } from './supply';

/** Puts what one entry changed into what a page shows: colours by line, and the bags of those colours and the strays. */
export function withAnswer<
  View extends { supply: LineSupply[]; bags: CountedBag[] },
  Answer extends { supply: LineSupply[]; bags: CountedBag[] },
>(view: View, answer: Answer): View & Answer {
  const changed = new Map(answer.supply.map((each) => [each.line, each]));
  const kept = view.bags.filter(({ line }) => line !== null && !changed.has(line));
  return {
    ...view,
    ...answer,
    supply: view.supply.map((each) => changed.get(each.line) ?? each),
    bags: [...kept, ...answer.bags],
  };
}
