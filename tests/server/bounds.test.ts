import { describe, expect, it } from 'vitest';
import type { SchemaDescription, SchemaFieldDescription } from 'yup';
import { isSchema } from 'yup';
import { chartEditSchema } from '../../src/server/chart/contract';
import { bagSchema } from '../../src/server/checkin/contract';
import { finishBySchema, weekQuery } from '../../src/server/progress/contract';
import { inFrontSchema, timeModelQuery } from '../../src/server/sections/contract';

const contracts = import.meta.glob<Record<string, unknown>>('../../src/server/*/contract.ts', {
  eager: true,
});

/** Every number that a description holds, by its place. */
function numbersIn(found: SchemaFieldDescription, place: string): [place: string, tests: string[]][] {
  const { type, tests = [] } = found as SchemaDescription;
  if (type === 'number') return [[place, tests.map(({ name }) => name!)]];
  if ('fields' in found)
    return Object.entries(found.fields).flatMap(([name, field]) => numbersIn(field, `${place}.${name}`));
  if ('innerType' in found && found.innerType)
    return [found.innerType].flat().flatMap((inner) => numbersIn(inner, `${place}[]`));
  return [];
}

const numbers = Object.values(contracts)
  .flatMap((contract) => Object.entries(contract))
  .flatMap(([name, schema]) => (isSchema(schema) ? numbersIn(schema.describe(), name) : []));

/** What is looked up by its number, or what a rule in core bounds with a sentence of its own, before anything is written. */
const JUDGED_IN_CORE =
  /\.(panel|page|section|spare|snap|mostColumns|mostRows|thrown|columnCuts\[\]|rowCuts\[\])$|^(storage|redraw)Schema\.trays\[\]\.slots/;

describe('numbers in requests', () => {
  it('each have a least and a largest value', () => {
    expect(numbers.length).toBeGreaterThan(60);
    const open = numbers.filter(([, tests]) => !tests.includes('max') || !tests.includes('min'));
    expect(open.map(([place]) => place).filter((place) => !JUDGED_IN_CORE.test(place))).toEqual([]);
  });

  it('name colours of lists that were changed often, and none that no chart can hold', () => {
    const front = (line: unknown) => inFrontSchema.isValidSync({ section: 1, line });
    expect([1, 300, 60_000, null].map(front)).toEqual([true, true, true, true]);
    expect([0, -1, 1.5, 60_001, 2 ** 31, 1e308].map(front)).toEqual(new Array(6).fill(false));
    const edit = (line: unknown) =>
      chartEditSchema.isValidSync({ id: crypto.randomUUID(), edits: [{ runs: [0, 1], line }] });
    // Nought leaves the squares bare.
    expect([0, 300, 60_000].map(edit)).toEqual([true, true, true]);
    expect([-1, 60_001].map(edit)).toEqual([false, false]);
    expect(() => bagSchema.validateSync({ id: crypto.randomUUID(), line: 60_001 })).toThrow(/60000 or less/);
  });

  it('and a device is named by a whole id', () => {
    const maker = (of: string) => timeModelQuery.isValidSync({ maker: of });
    expect(['desk', crypto.randomUUID()].map(maker)).toEqual([true, true]);
    expect(['-'.repeat(36), 'desk2', `x${crypto.randomUUID()}`].map(maker)).toEqual([false, false, false]);
  });
});

it('a wished day, and that of a week, lie in years in which somebody lays drills', async () => {
  for (const [schema, name] of [
    [finishBySchema, 'finishBy'],
    [weekQuery, 'day'],
  ] as const) {
    for (const day of ['1990-01-01', '2199-12-31']) {
      await expect(schema.validate({ [name]: day })).resolves.toMatchObject({ [name]: day });
    }
    for (const day of ['0026-11-30', '2200-01-01', '9999-12-31', '2026-02-30', '20277-01-01']) {
      await expect(schema.validate({ [name]: day }), day).rejects.toThrow('as year-month-day');
    }
  }
});
