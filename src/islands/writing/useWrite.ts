import { useCallback, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { type ApiProblem, inWords, type WriteMethod } from './api';
import { type OutboxState, theOutbox } from './outbox';

export interface Writing {
  /** Whether something is under way that this page waits for. */
  busy: boolean;
  /** What went wrong last, as a sentence. */
  fault: string | null;
  setFault(fault: string | null): void;
  /**
   * Sends a write through the outbox. `then` gets the answer, also when it comes late. The very same write, under whatever
   * id, is not taken in a second time while the first is under way or waits, unless `again` says that it is another one.
   * @param refused told where the server will not have it; one that waits may still be acknowledged
   * @returns whether it was acknowledged by now
   */
  write<Answer>(
    method: WriteMethod,
    url: string,
    body: object | undefined,
    then: (answer: Answer) => void,
    again?: boolean,
    refused?: (error: ApiProblem) => void,
  ): Promise<boolean>;
  /** A new entry for a ledger: as {@link write}, with an id of its own. */
  enter<Answer>(
    url: string,
    body: object,
    then: (answer: Answer) => void,
    again?: boolean,
    refused?: (error: ApiProblem) => void,
  ): Promise<boolean>;
  /** Anything else that takes a while and may fail, such as sending a file. @returns whether it went well */
  act(work: () => Promise<void>): Promise<boolean>;
}

export const WAITS = 'Oculent does not answer. What you did is kept here and is sent as soon as it is back.';

/** The one way in which a page writes. @param canvasId null for what belongs to no canvas */
export function useWrite(canvasId: string | null = null): Writing {
  const [running, setRunning] = useState(0);
  const [fault, setFault] = useState<string | null>(null);
  const underway = useRef(new Map<string, Promise<boolean>>());

  const start = useCallback(
    <Answer>(
      method: WriteMethod,
      url: string,
      body: unknown,
      then: (answer: Answer) => void,
      refused: (error: ApiProblem) => void,
    ): Promise<boolean> => {
      setFault(null);
      setRunning((n) => n + 1);
      return new Promise<boolean>((resolve) => {
        const end = (acknowledged: boolean, words: string | null) => {
          if (words !== null) setFault(words);
          resolve(acknowledged);
        };
        void theOutbox().put(method, url, body, canvasId, {
          answered: (answer) => {
            setFault((before) => (before === WAITS ? null : before));
            then(answer as Answer);
            end(true, null);
          },
          refused: (error: ApiProblem) => {
            refused(error);
            end(false, inWords(error));
          },
          away: () => end(false, WAITS),
        });
      }).finally(() => setRunning((n) => n - 1));
    },
    [canvasId],
  );
  const writeAs = useCallback(
    <Answer>(
      same: string,
      method: WriteMethod,
      url: string,
      body: unknown,
      then: (answer: Answer) => void,
      again: boolean,
      refused?: (error: ApiProblem) => void,
    ): Promise<boolean> => {
      const known = again ? undefined : underway.current.get(same);
      if (known) return known;
      // What was refused may be tried again; what waits for the server may not be doubled.
      const over = () => {
        if (underway.current.get(same) === mine) underway.current.delete(same);
      };
      const done = (answer: Answer) => {
        over();
        then(answer);
      };
      const mine = start<Answer>(method, url, body, done, (error) => {
        over();
        refused?.(error);
      });
      underway.current.set(same, mine);
      return mine;
    },
    [start],
  );
  const write = useCallback<Writing['write']>(
    (method, url, body, then, again = false, refused) =>
      writeAs(JSON.stringify([method, url, { ...body, id: null }]), method, url, body, then, again, refused),
    [writeAs],
  );
  const enter = useCallback<Writing['enter']>(
    (url, body, then, again = false, refused) => {
      const entry = { id: crypto.randomUUID(), ...body };
      return writeAs(JSON.stringify([url, body]), 'POST', url, entry, then, again, refused);
    },
    [writeAs],
  );
  const act = useCallback(async (work: () => Promise<void>) => {
    setFault(null);
    setRunning((n) => n + 1);
    try {
      await work();
      return true;
    } catch (error) {
      setFault(inWords(error));
      return false;
    } finally {
      setRunning((n) => n - 1);
    }
  }, []);
  return useMemo(
    () => ({ busy: running > 0, fault, setFault, write, enter, act }),
    [running, fault, write, enter, act],
  );
}

/** What waits and what was set aside, for all pages alike. */
export function useOutbox(): OutboxState {
  const outbox = theOutbox();
  return useSyncExternalStore(
    (listen) => outbox.subscribe(listen),
    () => outbox.current(),
  );
}
