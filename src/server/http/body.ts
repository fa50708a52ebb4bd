import { setImmediate } from 'node:timers/promises';
import type { InferType, Schema, SchemaDescription, SchemaObjectDescription } from 'yup';
import { Refusal } from '../../core/refusal';
import { tooMuchJson } from '../../core/words/nesting';
import { many } from '../../core/words/numbers';
import { readText } from '../../core/words/text';
import { Problem } from './problem';

/** Nothing larger is taken, whatever it is. */
export const MAX_REQUEST_BYTES = 32_000_000;
const MAX_JSON_BYTES = 8_000_000;
/** Letters from which on the steps of reading a request let others have their turn. */
const LONG_TEXT = 200_000;
/** Deeper than any request of ours; a parser's and a schema's stack end somewhere. */
const MAX_NESTING = 24;
/** Lists and objects of a request in all: more than any of ours, and parsed before others have waited long. */
const MAX_PARTS = 100_000;
/** Entries of a list whose schema says nothing of its length. */
const MAX_ENTRIES = 10_000;

/** What a request says of its body: media type in lower case, and the encoding where it says one. */
export function mediaType(request: Request): { type: string; charset: string | null } {
  const [type = '', ...parameters] = (request.headers.get('content-type') ?? '').split(';');
  const charset = parameters
    .map((each) => /^\s*charset\s*=\s*"?([^"\s]+)"?\s*$/i.exec(each)?.[1])
    .find((each) => each !== undefined);
  return { type: type.trim().toLowerCase(), charset: charset?.toLowerCase() ?? null };
}

/** Reads a JSON body and checks it. @throws Problem, or the schema's own error */
export async function readJson<S extends Schema>(request: Request, schema: S): Promise<InferType<S>> {
  const { type, charset } = mediaType(request);
  if (type !== 'application/json') {
    throw new Problem(415, 'Not JSON', 'Send the request as JSON, with content-type: application/json.');
  }
  const text = readText(await readBody(request, MAX_JSON_BYTES), charset);
  // Each of these steps takes its time on a long text; others have their turn between them.
  const breathe = async () => {
    if (text.length > LONG_TEXT) await setImmediate();
  };
  await breathe();
  const tooMuch = tooMuchJson(text, MAX_NESTING, MAX_PARTS);
  if (tooMuch === 'deep') {
    throw new Problem(400, 'Not JSON', `The request is nested deeper than ${MAX_NESTING} levels.`);
  }
  if (tooMuch === 'many') {
    throw new Refusal(`The request has more than ${many(MAX_PARTS)} entries, which nothing here needs.`);
  }
  await breathe();
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Problem(400, 'Not JSON', 'The body of the request is not JSON.');
  }
  await breathe();
  if (UNKEPT.test(text)) refuseUnkept(value);
  refuseLongLists(descriptionOf(schema), value, '');
  return validated(schema, value);
}

/** Where text may hold what no database keeps: an escaped NUL or half of a pair of surrogates. */
const UNKEPT = /\\u0000|\\u[dD][89a-fA-F]/;

/** @throws Problem where some text cannot be kept as it is */
function refuseUnkept(value: unknown): void {
  if (typeof value === 'string') {
    if (value.includes('\u0000') || !isWellFormed(value)) {
      throw new Problem(
        422,
        'Cannot be kept',
        'A text holds a character that cannot be kept (NUL, or half a sign).',
      );
    }
  } else if (Array.isArray(value)) {
    for (const each of value) refuseUnkept(each);
  } else if (typeof value === 'object' && value !== null) {
    for (const [name, each] of Object.entries(value)) {
      refuseUnkept(name);
      refuseUnkept(each);
    }
  }
}

function isWellFormed(text: string): boolean {
  return !/[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/.test(text);
}

async function validated<S extends Schema>(schema: S, value: unknown): Promise<InferType<S>> {
  try {
    return (await schema.validate(value)) as InferType<S>;
  } catch (error) {
    // The schema library trims what it takes for text without asking whether it is.
    if (error instanceof TypeError || error instanceof RangeError) {
      throw new Problem(422, 'Cannot be taken', 'A part of the request is of the wrong kind.');
    }
    throw error;
  }
}

/** Checks the query of a URL. */
export async function readQuery<S extends Schema>(url: URL, schema: S): Promise<InferType<S>> {
  const query = Object.fromEntries(url.searchParams);
  refuseUnkept(query);
  return validated(schema, query);
}

const described = new WeakMap<Schema, SchemaDescription>();
function descriptionOf(schema: Schema): SchemaDescription {
  let description = described.get(schema);
  if (!description) {
    description = schema.describe() as SchemaDescription;
    described.set(schema, description);
  }
  return description;
}

/**
 * Lists that are too long are refused before any of their entries is looked at: a schema takes microseconds an entry.
 * @throws Refusal
 */
function refuseLongLists(description: SchemaDescription, value: unknown, path: string): void {
  if (description.type === 'array' && Array.isArray(value)) {
    const limit = description.tests.find(({ name }) => name === 'max' || name === 'length')?.params;
    const most = Number(limit?.max ?? limit?.length ?? MAX_ENTRIES);
    if (value.length > most) {
      throw new Refusal(`“${path}” has ${many(value.length)} entries; at most ${many(most)} are taken.`);
    }
    const inner = (description as { innerType?: SchemaDescription }).innerType;
    if (inner?.type === 'object' || inner?.type === 'array') {
      for (const entry of value) refuseLongLists(inner, entry, path);
    }
  } else if (description.type === 'object' && typeof value === 'object' && value !== null) {
    const { fields } = description as SchemaObjectDescription;
    for (const [name, field] of Object.entries(fields)) {
      refuseLongLists(field as SchemaDescription, (value as Record<string, unknown>)[name], name);
    }
  }
}

/** Reads a body, and stops reading as soon as it is longer than allowed. @throws Problem 413 */
export async function readBody(request: Request, maxBytes: number): Promise<Uint8Array> {
  const tooLarge = () =>
    new Problem(
      413,
      'Too large',
      `This is more than the ${many(maxBytes / 1_000_000)} MB that we take at once.`,
    );
  if (Number(request.headers.get('content-length') ?? 0) > maxBytes) throw tooLarge();
  const parts: Uint8Array[] = [];
  let length = 0;
  const reader = request.body?.getReader();
  for (;;) {
    const next = await reader?.read().catch(() => {
      // Nobody waits for the answer; to the log it is no fault of ours.
      throw new Problem(400, 'Broken off', 'The request ended before all of it had come.');
    });
    if (!next || next.done) break;
    length += next.value.byteLength;
    if (length > maxBytes) {
      await reader?.cancel();
      throw tooLarge();
    }
    parts.push(next.value);
  }
  return new Uint8Array(Buffer.concat(parts));
}
