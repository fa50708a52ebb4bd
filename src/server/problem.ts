import { ValidationError } from 'yup';

/** A refusal that the caller can understand and mend, sent as a problem response (RFC 9457). */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    /** One sentence that names what is wrong and what to do. */
    readonly detail: string,
    readonly more: Record<string, unknown> = {},
  ) {
    super(detail);
  }
}

export function notFound(what: string): Problem {
  return new Problem(404, 'Not here', `There is no ${what} here. It may have been removed.`);
}

export function conflict(detail: string): Problem {
  return new Problem(409, 'Does not fit what is there', detail);
}

export function unreadable(detail: string, more: Record<string, unknown> = {}): Problem {
  return new Problem(422, 'Cannot be read', detail, more);
}

/** Any thrown thing as a response; what nobody foresaw is logged and told without its inside. */
export function problemResponse(error: unknown): Response {
  const problem = asProblem(error);
  return new Response(
    JSON.stringify({ title: problem.title, status: problem.status, detail: problem.detail, ...problem.more }),
    { status: problem.status, headers: { 'content-type': 'application/problem+json' } },
  );
}

function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof ValidationError) {
    return new Problem(422, 'Cannot be taken', error.errors[0] ?? error.message, { errors: error.errors });
  }
  console.error(error);
  return new Problem(
    500,
    'Our fault',
    'Something went wrong on our side. Nothing was changed; please try again.',
  );
}
