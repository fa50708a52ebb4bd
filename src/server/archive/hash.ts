import { createHash } from 'node:crypto';

/** Digest of a file as a Data Package gives it. */
export function hashOf(bytes: Uint8Array): string {
  return `sha256:${createHash('sha256').update(bytes).digest('hex')}`;
}
