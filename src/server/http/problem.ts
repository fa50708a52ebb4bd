import { ValidationError } from 'yup';
import { Refusal } from '../../core/refusal';
import { isDataFault } from '../../data/engine/dataFault';

/**
 * A refusal that the caller can understand and mend, sent as a problem response (RFC 9457). Its sentence names what is
 * wrong and what to do.
 */
export class Problem extends Refusal {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly more: Record<string, unknown> = {},
  ) {
    super(detail);
  }
}

export function notFound(what: string): Problem {
  return new Problem(404, 'Not here', `There is no ${what} here. It may have been deleted.`);
}

/** For a device that is not let in. */
export function notJoined(): Problem {
  return new Problem(401, 'Not joined', 'This device has not joined, or was signed out.');
}

export function conflict(detail: string, more: Record<string, unknown> = {}): Problem {
  return new Problem(409, 'Does not fit what is there', detail, more);
}

/** A known id with other content: the caller must take a new one. */
export function idTaken(): Problem {
  return conflict('This id already stands for something else. Use a new id for a new entry.');
}

export function unreadable(detail: string, more: Record<string, unknown> = {}): Problem {
  return new Problem(422, 'Cannot be read', detail, more);
}

/** Any thrown thing as a response; what nobody foresaw is logged and told without its inside. */
export function problemResponse(error: unknown): Response {
  const { title, status, detail, more } = asProblem(error);
  const type = `urn:oculent:problem:${title.toLowerCase().replace(/[^a-z]+/g, '-')}`;
  return new Response(JSON.stringify({ type, title, status, detail, ...more }), {
    status,
    headers: { 'content-type': 'application/problem+json' },
  });
}

function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof Refusal) return unreadable(error.message);
  if (error instanceof ValidationError) {
    return new Problem(422, 'Cannot be taken', error.errors[0] ?? error.message, { errors: error.errors });
  }
  if (isDataFault(error)) {
    console.error(error);
    return error.kind === 'disk'
      ? new Problem(507, 'The disk', error.message)
      : new Problem(503, 'The database', error.message);
  }
  const { code } = (error ?? {}) as { code?: unknown };
  if (code === '22021' || code === '22P05') {
    return new Problem(422, 'Cannot be kept', 'A text holds a character that cannot be kept.');
  }
  if (code === '53100') {
    return new Problem(507, 'The disk', 'The disk of the data is full. Make room on it, then try again.');
  }
  console.error(error);
  return new Problem(
    500,
    'A fault of Oculent',
    'Something went wrong on our side. Nothing was changed; please try again.',
  );
}
