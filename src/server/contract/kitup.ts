import { object, string } from 'yup';

export const labelsQuery = object({
  paper: string()
    .oneOf(['a4', 'letter'] as const, 'Paper is a4 or letter.')
    .default('a4'),
});
