/** A longer text that a write would have kept, for whoever must choose whether to give it up; null where there is none. */
export function typedIn(body: unknown): string | null {
  if (typeof body !== 'object' || body === null) return null;
  const { notes, note } = body as { notes?: unknown; note?: unknown };
  const text = [notes, note].find((each) => typeof each === 'string' && each.trim() !== '');
  return typeof text === 'string' ? text.trim() : null;
}
