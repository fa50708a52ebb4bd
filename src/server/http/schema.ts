import { addMethod, mixed, number, setLocale, string } from 'yup';
import { MAX_SIDE_CELLS } from '../../core/canvas/canvas';
import { MAX_LINE } from '../../core/canvas/legend';

/*
 * The schema library, with sentences in place of its own messages. Contracts import it from here, so that the sentences
 * are set before the first schema is made.
 */

/** A place in a request as people count: `lines[2].code` is “code” of entry 3 in “lines”. */
function where(path: string | undefined): string {
  if (!path || path === 'this') return 'The request';
  const [first = '', ...inner] = path.match(/[^.[\]]+/g) ?? [path];
  const said = inner.reduce(
    (outer, part) => (/^\d+$/.test(part) ? `entry ${Number(part) + 1} in ${outer}` : `“${part}” of ${outer}`),
    `“${first}”`,
  );
  return said.charAt(0).toUpperCase() + said.slice(1);
}

const KINDS: Record<string, string> = {
  number: 'a number',
  string: 'text',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object',
};
type At = { path?: string };

setLocale({
  mixed: {
    default: ({ path }: At) => `${where(path)} cannot be taken.`,
    required: ({ path }: At) => `${where(path)} is missing.`,
    defined: ({ path }: At) => `${where(path)} is missing.`,
    notNull: ({ path }: At) => `${where(path)} cannot be empty.`,
    oneOf: ({ path, values }: At & { values?: unknown }) =>
      `${where(path)} must be one of: ${String(values)}.`,
    notType: ({ path, type }: At & { type?: string }) =>
      `${where(path)} must be ${KINDS[type ?? ''] ?? 'of another kind'}.`,
  },
  number: {
    min: ({ path, min }: At & { min?: number }) => `${where(path)} must be ${min} or more.`,
    max: ({ path, max }: At & { max?: number }) => `${where(path)} must be ${max} or less.`,
    integer: ({ path }: At) => `${where(path)} must be a whole number.`,
  },
  string: {
    min: ({ path, min }: At & { min?: number }) => `${where(path)} must have ${min} characters or more.`,
    max: ({ path, max }: At & { max?: number }) => `${where(path)} must have ${max} characters or fewer.`,
    matches: ({ path }: At) => `${where(path)} is not written as it should be.`,
    uuid: ({ path }: At) => `${where(path)} must be a UUID.`,
  },
  array: {
    min: ({ path, min }: At & { min?: number }) => `${where(path)} must have ${min} entries or more.`,
    max: ({ path, max }: At & { max?: number }) => `${where(path)} must have ${max} entries or fewer.`,
    length: ({ path, length }: At & { length?: number }) => `${where(path)} must have ${length} entries.`,
  },
  tuple: {
    notType: ({ path, spec }: At & { spec?: { types: readonly unknown[] } }) =>
      `${where(path)} must be a list of ${spec?.types.length} entries.`,
  },
});

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

// The library knows the older versions of RFC 9562 only; the number of its version is none of our business.
addMethod(string, 'uuid', function uuid(message?: string) {
  return this.matches(UUID, {
    name: 'uuid',
    message: message ?? (({ path }: At) => `${where(path)} must be a UUID.`),
  });
});

/**
 * A list of whole numbers from 0, checked in one pass: a schema of its own for each entry takes a thousand times longer.
 * @param most entries that are taken
 */
export function wholeNumbers(most: number, sentence: string) {
  return mixed<number[]>((value): value is number[] => Array.isArray(value)).test(
    'whole',
    sentence,
    (value) =>
      value === undefined ||
      (value.length <= most && value.every((each) => Number.isInteger(each) && each >= 0)),
  );
}

/** A colour by its number in the list, which may lie beyond the length of a list. */
export const colourLine = () =>
  number().integer('Colours are named by their line, a whole number.').min(1).max(MAX_LINE);

/** Columns of the canvas by which squares were counted: its size may be corrected before they come. */
export const columnsThen = () =>
  number()
    .integer('Columns are counted in whole numbers.')
    .min(1, 'A canvas has at least one column.')
    .max(MAX_SIDE_CELLS, `A canvas has at most ${MAX_SIDE_CELLS} columns.`)
    .optional();

/** Whose marks or sittings: a device by its id, or the machine itself. */
export const makerSchema = string()
  .matches(new RegExp(`^desk$|${UUID.source}`, 'i'), 'Name a device by its id, or say desk.')
  .nullable()
  .default(null);

export * from 'yup';
