import type { BlockSize, SectionTally } from '../../core/sections/blockGrid';
import { number, object } from '../http/schema';

const blockSide = (which: string) =>
  number()
    .typeError(`Give the ${which} of a section as a number of squares.`)
    .required(`Give the ${which} of a section.`)
    .integer(`The ${which} of a section must be a whole number of squares.`)
    .min(5, 'A section is at least 5 squares wide and high.')
    .max(500, 'A section is at most 500 squares wide and high.');

export const blockSizeSchema = object({ columns: blockSide('width'), rows: blockSide('height') });

/** What is in front at some screen, so that the next one begins there. */
export const inFrontSchema = object({
  section: number()
    .typeError('Give the section as a number.')
    .required('Say which section.')
    .integer('Sections count from 1.')
    .min(1, 'Sections count from 1.')
    .max(1_000_000, 'There is no such section.'),
  line: number().integer('Give the colour by its number in the list.').nullable().default(null),
});

export interface SectionsView {
  block: BlockSize;
  sections: SectionTally[];
}
