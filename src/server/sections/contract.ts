import type { BlockSize, SectionTally } from '../../core/sections/blockGrid';
import type { TickedColour } from '../../core/sections/ticks';
import { boolean, number, object, string } from '../http/schema';

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

/** A colour is done in a section, or is not after all, on a canvas without a chart. */
export const tickSchema = object({
  id: string()
    .uuid('The id must be a UUID.')
    .required('A tick needs an id, so that a repeated request changes nothing.'),
  section: number()
    .required('Say which section.')
    .integer('Sections count from 1.')
    .min(1, 'Sections count from 1.'),
  line: number().required('Say which colour.').integer('Give the colour by its number in the list.').min(1),
  done: boolean().required('Say whether the colour is done there.'),
});

export interface TicksView {
  ticked: TickedColour[];
}

export interface SectionsView {
  block: BlockSize;
  sections: SectionTally[];
}
