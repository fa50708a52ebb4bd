import type { ColourPlan } from '../../core/placing/barPlan';
import type { Section } from '../../core/sections/section';
import { array, number, object } from '../http/schema';

export const placingQuery = object({
  section: number()
    .typeError('Give the number of a section.')
    .integer()
    .min(1, 'Sections are numbered from 1.')
    .required('Give the number of a section.'),
});

export const tipsSchema = object({
  tips: array(number().integer('A tip takes a whole number of drills.').min(1).max(50).required())
    .required('Give the tips as a list of numbers.')
    .max(20, 'More than 20 tips fit no pen case.'),
});

export interface PlacingView {
  section: Section;
  tips: number[];
  plans: ColourPlan[];
  placements: { planned: number; oneByOne: number };
}
