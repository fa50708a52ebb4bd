import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type LedgerRow, undoState } from '../../../src/core/ledger/history';

const did = (id: string): LedgerRow => ({ id, undoes: null, redoes: null });
const undid = (id: string, undoes: string): LedgerRow => ({ id, undoes, redoes: null });
const redid = (id: string, redoes: string): LedgerRow => ({ id, undoes: null, redoes });

describe('undo over a ledger', () => {
  it('starts with nothing to undo or redo', () => expect(undoState([])).toEqual({ undo: null, redo: null }));

  it('takes back the last that stands', () => {
    expect(undoState([did('a'), did('b')])).toEqual({ undo: 'b', redo: null });
    expect(undoState([did('a'), did('b'), undid('c', 'b')])).toEqual({ undo: 'a', redo: 'b' });
  });

  it('does again what was taken back, under a new id', () => {
    expect(undoState([did('a'), undid('b', 'a'), redid('c', 'a')])).toEqual({ undo: 'c', redo: null });
  });

  it('forgets redo after something new', () => {
    expect(undoState([did('a'), undid('b', 'a'), did('c')])).toEqual({ undo: 'c', redo: null });
  });

  it('takes back one from the middle', () => {
    expect(undoState([did('a'), did('b'), undid('c', 'a')])).toEqual({ undo: 'b', redo: 'a' });
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
          const { undo, redo } = undoState(rows);
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
        const { undo, redo } = undoState(rows);
        expect(undo === null ? null : value.get(undo)).toBe(done.at(-1) ?? null);
        expect(redo === null ? null : value.get(redo)).toBe(undone.at(-1) ?? null);
      }),
    );
  });
});
