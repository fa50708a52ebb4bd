import type { ReactNode } from 'react';
import { Notice } from '../../ui/Notice';
import { useAnswer } from './useAnswer';

/** Loads what a page shows, where that is too long to come with the page; says so meanwhile. */
export function WithView<View>({ url, children }: { url: string; children: (first: View) => ReactNode }) {
  const { answer, fault } = useAnswer<View>(url);
  if (answer !== null) return children(answer);
  return fault ? <Notice kind="fault">{fault}</Notice> : <p aria-live="polite">Loading…</p>;
}
