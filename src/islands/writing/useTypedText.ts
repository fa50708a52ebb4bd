import { useCallback, useEffect, useRef, useState } from 'react';
import { useAsksBeforeLeaving } from '../../ui/useAsksBeforeLeaving';

/** What is typed is sent once nothing was typed for so long. */
const QUIET_MS = 1500;

interface Draft {
  text: string;
  /** What was kept when it was begun. */
  from: string;
  /** What was sent of it so far and not refused, in order. */
  sent: readonly string[];
  /** What the server would not have last: it is not sent by itself again. */
  refused: string | null;
}

export interface TypedText {
  text: string;
  type: (text: string) => void;
  /** The field is left. */
  leave: () => void;
  /** Whether something was typed that the server does not have yet. */
  isOpen: boolean;
  /** What another screen wrote meanwhile; null where nothing stands in the way. */
  theirs: string | null;
  choose: (which: 'mine' | 'theirs' | 'both') => void;
}

/** Spaces at the ends are not kept. */
const same = (a: string, b: string) => a.trim() === b.trim();

/**
 * A longer text that is kept while it is typed: after a pause, when the field is left, and when the page is. What another
 * screen wrote meanwhile never takes the place of what is typed, nor the other way round: the user chooses.
 * @param kept as the server has it, as far as this page knows
 * @param send keeps a text in the place of `from`; `refused` is to be called where the server will not have it
 */
export function useTypedText(
  kept: string,
  send: (text: string, from: string, refused: () => void) => void,
): TypedText {
  const [draft, setDraft] = useState<Draft | null>(null);
  const [seen, setSeen] = useState(kept);
  if (kept !== seen) {
    setSeen(kept);
    // Where all that was typed is kept, what another screen writes is simply shown.
    if (draft && same(draft.text, seen)) setDraft(null);
  }
  const isOpen = draft !== null && !same(draft.text, kept);
  const isOwn = (text: string) =>
    draft !== null && [draft.from, ...draft.sent].some((own) => same(own, text));
  const theirs = isOpen && !isOwn(kept) ? kept : null;
  const newest = useRef({ draft, isOpen, theirs, send });
  newest.current = { draft, isOpen, theirs, send };

  const put = useCallback((next: Draft, from: string) => {
    const sent = { ...next, sent: [...next.sent, next.text] };
    newest.current = { ...newest.current, draft: sent };
    setDraft(sent);
    // Nothing later takes the place of what never was kept.
    const refused = () =>
      setDraft(
        (now) => now && { ...now, refused: next.text, sent: now.sent.filter((text) => text !== next.text) },
      );
    newest.current.send(next.text, from, refused);
  }, []);
  const keep = useCallback(() => {
    const { draft, isOpen, theirs } = newest.current;
    if (!draft || !isOpen || theirs !== null) return;
    const from = draft.sent.at(-1) ?? draft.from;
    if (!same(draft.text, from)) put(draft, from);
  }, [put]);
  // Each change of the text begins the pause anew.
  useEffect(() => {
    if (!isOpen || theirs !== null || draft.refused === draft.text) return;
    const timer = setTimeout(keep, QUIET_MS);
    return () => clearTimeout(timer);
  }, [draft, isOpen, theirs, keep]);
  useEffect(() => {
    const hidden = () => document.visibilityState === 'hidden' && keep();
    document.addEventListener('visibilitychange', hidden);
    window.addEventListener('pagehide', keep);
    return () => {
      document.removeEventListener('visibilitychange', hidden);
      window.removeEventListener('pagehide', keep);
      keep();
    };
  }, [keep]);

  // What nobody has chosen yet would be gone with the page.
  useAsksBeforeLeaving(theirs !== null);

  return {
    text: draft?.text ?? kept,
    type: (text) => setDraft({ from: kept, sent: [], refused: null, ...draft, text }),
    leave: () => {
      keep();
      if (draft && !isOpen) setDraft(null);
    },
    isOpen,
    theirs,
    choose: (which) => {
      if (!draft || theirs === null) return;
      if (which === 'theirs') setDraft(null);
      else {
        const text = which === 'mine' ? draft.text : `${theirs.trim()}\n${draft.text.trim()}`;
        put({ text, from: theirs, sent: [], refused: null }, theirs);
      }
    },
  };
}
