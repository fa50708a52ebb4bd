import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type LedgerRow, undoState } from '../../../src/core/ledger/history';

const HERE = 'here';
const at = (screen: string, row: LedgerRow): LedgerRow => ({ ...row, screen });
const state = (rows: LedgerRow[]) => {
  const { undo, redo } = undoState(rows, HERE);
  return { undo, redo };
};

const did = (id: string): LedgerRow => ({ id, screen: HERE, undoes: null, redoes: null });
const undid = (id: string, undoes: string): LedgerRow => ({ id, screen: HERE, undoes, redoes: null });
const redid = (id: string, redoes: string): LedgerRow => ({ id, screen: HERE, undoes: null, redoes });

describe('undo over a ledger', () => {
  it('starts with nothing to undo or redo', () => expect(state([])).toEqual({ undo: null, redo: null }));

  it('takes back the last that stands', () => {
    expect(state([did('a'), did('b')])).toEqual({ undo: 'b', redo: null });
    expect(state([did('a'), did('b'), undid('c', 'b')])).toEqual({ undo: 'a', redo: 'b' });
  });

  it('does again what was taken back, under a new id', () => {
    expect(state([did('a'), undid('b', 'a'), redid('c', 'a')])).toEqual({ undo: 'c', redo: null });
  });

  it('forgets redo after something new', () => {
    expect(state([did('a'), undid('b', 'a'), did('c')])).toEqual({ undo: 'c', redo: null });
  });

  it('takes back one from the middle', () => {
    expect(state([did('a'), did('b'), undid('c', 'a')])).toEqual({ undo: 'b', redo: 'a' });
  });

  it('acts on what this screen did, and offers another’s act only where there is none of its own', () => {
    const rows = [did('a'), at('there', did('b'))];
    expect(undoState(rows, HERE)).toEqual({ undo: 'a', own: true, redo: null });
    expect(undoState(rows, 'there')).toEqual({ undo: 'b', own: true, redo: null });
    expect(undoState(rows, 'new')).toEqual({ undo: 'b', own: false, redo: null });
    // Redo belongs to the screen that undid, and something new at another screen does not take it away.
    const undone = [...rows, undid('c', 'a'), at('there', did('d'))];
    expect(undoState(undone, HERE)).toEqual({ undo: 'd', own: false, redo: 'a' });
    expect(undoState(undone, 'there').redo).toBeNull();
  });

  it('behaves as two stacks do', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('do', 'undo', 'redo'), { maxLength: 60 }), (steps) => {
        const rows: LedgerRow[] = [];
        // The reference: values on two plain stacks, each redo being the same value again.
        const done: string[] = [];
        const undone: string[] = [];
        const value = new Map<string, string>();
        steps.forEach((step, i) => {
          const id = `r${i}`;
          const { undo, redo } = undoState(rows, HERE);
          if (step === 'do') {
            rows.push(did(id));
            value.set(id, id);
            done.push(id);
            undone.length = 0;
          } else if (step === 'undo' && undo !== null) {
            rows.push(undid(id, undo));
            undone.push(done.pop()!);
          } else if (step === 'redo' && redo !== null) {
            rows.push(redid(id, redo));
            value.set(id, value.get(redo)!);
            done.push(undone.pop()!);
          }
        });
        const { undo, redo } = undoState(rows, HERE);
        expect(undo === null ? null : value.get(undo)).toBe(done.at(-1) ?? null);
        expect(redo === null ? null : value.get(redo)).toBe(undone.at(-1) ?? null);
      }),
    );
  });
});
