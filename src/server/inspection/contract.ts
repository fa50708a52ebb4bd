import { INSPECTION_KINDS, type InspectionKey } from '../../core/inspection/inspection';
import { number, object, string } from '../http/schema';

const KEYS = INSPECTION_KINDS.map((kind) => kind.key) as InspectionKey[];
const length = (which: string) =>
  number()
    .typeError(`Give the measured ${which} in centimetres.`)
    .min(1, `The measured ${which} must be at least 1 cm.`)
    .max(2000, `The measured ${which} cannot be more than 20 m.`)
    .nullable()
    .default(null)
    .when('kind', {
      is: 'size',
      // biome-ignore lint/suspicious/noThenProperty: the name that the schema library gives its branches
      then: (schema) => schema.required(`Give the measured ${which} in centimetres.`),
    });

export const inspectionSchema = object({
  id: string().uuid().required('An entry needs an id, so that a repeated request adds nothing.'),
  kind: string().oneOf(KEYS, 'Choose one of the findings in the list.').required('Say what was found.'),
  note: string().trim().max(1000, 'Keep the note to 1,000 characters.').default(''),
  widthCm: length('width'),
  heightCm: length('height'),
});

/** One dated entry with what is usually done about it. */
export interface InspectionView {
  id: string;
  happenedAt: string;
  name: string;
  note: string;
  /** The measured size against the one that follows from the cells; empty for other kinds. */
  size: string;
  remedy: string;
  caution: string;
  hasPhoto: boolean;
  /** What was said, to be corrected. */
  kind: InspectionKey;
  widthCm: number | null;
  heightCm: number | null;
  /** When it was taken out of the record; null while it is in it. */
  removedAt: string | null;
}
