import { number, object, string } from '../http/schema';

export const packingQuery = object({
  /** Drills per bag of the sizes in stock, parted by commas. */
  sizes: string().default('200,1000'),
  spare: number().typeError('Give the spare drills in percent.').default(10),
  goal: string()
    .oneOf(['fewest bags', 'least surplus'] as const)
    .default('least surplus'),
});
