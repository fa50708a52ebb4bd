import { REQUEST_STATES, type RequestLine } from '../../core/requests/supplierRequest';
import type { CoverOffer } from '../../core/stash/cover';
import { colourLine, number, object, string } from '../http/schema';

export const requestStateSchema = object({
  id: string().uuid().required('A state needs an id, so that a repeated request changes nothing.'),
  line: colourLine().required('Say which colour was asked for.'),
  state: string()
    .oneOf(REQUEST_STATES, 'A request is asked, promised or arrived.')
    .required('Say how far the request has come.'),
});

export const ranOutSchema = object({
  id: string().uuid().required('A report needs an id, so that a repeated request changes nothing.'),
  line: colourLine().required('Say which colour ran out.'),
  /** Drills of it that are left. */
  left: number()
    .typeError('Give the drills that are left as a number.')
    .integer('Drills are counted in whole numbers.')
    .min(0, 'The drills that are left cannot be below 0.')
    .max(1_000_000)
    .default(0),
});

/** Covers a shortage: takes drills out of the stash and counts them as a bag of the line. */
export const coverSchema = object({
  id: string().uuid().required('Covering needs an id, so that a repeated request takes nothing twice.'),
  line: colourLine().required('Say which colour is covered.'),
  itemId: string().uuid().required('Say what is taken from the stash.'),
  drills: number()
    .typeError('Give the number of drills to take.')
    .required('Give the number of drills to take.')
    .integer('Drills are counted in whole numbers.')
    .min(1, 'Take at least one drill.')
    .max(1_000_000),
});

/** A colour to ask for, with what the stash could do about it. */
export interface RequestEntry extends RequestLine {
  offers: CoverOffer[];
  /** The section with the most drills of this colour, where a near colour would show most; null without a chart. */
  showsMostIn: { section: number; drills: number } | null;
}

export interface RequestView {
  lines: RequestEntry[];
  text: string;
  /** Entries of the inspection log whose photo goes with the request. */
  photos: string[];
}

export const requestPdfQuery = object({
  paper: string()
    .oneOf(['a4', 'letter'] as const, 'Paper is a4 or letter.')
    .default('a4'),
});
