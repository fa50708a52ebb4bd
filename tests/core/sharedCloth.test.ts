import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyMark, changedCells, type MarkKind } from '../../src/core/bench/marking';
import { type LedgerMark, SharedCloth } from '../../src/core/bench/sharedCloth';
import { emptyBitmap, isLaid } from '../../src/core/cells/bitmap';
import { cellsOfRuns, runsFromCells } from '../../src/core/cells/cellRuns';

const CELLS = 12;
// Two squares want no drill.
const lines = Uint16Array.from({ length: CELLS }, (_, cell) => (cell % 6 === 5 ? 0 : 1));

/** The ledger as a server keeps it: one mark after the other, each once. */
class Ledger {
  readonly laid = emptyBitmap(CELLS);
  readonly marks: LedgerMark[] = [];

  /** @returns what the answer holds; the same id again changes nothing */
  enter(
    id: string,
    kind: MarkKind,
    runs: number[],
  ): { kind: MarkKind; runs: number[]; position: number | null } {
    const known = this.marks.find((mark) => mark.id === id);
    if (known) return { kind: known.kind, runs: [...known.runs], position: known.position };
    const changed = changedCells({ lines, laid: this.laid }, kind, runs);
    if (changed.length === 0) return { kind, runs: [], position: null };
    applyMark(this.laid, kind, changed);
    const after = this.marks.at(-1)?.position ?? 0;
    // Other canvases take places of the same ledger.
    const position = after + 1 + (this.marks.length % 3);
    this.marks.push({ id, after, position, kind, runs: changed });
    return { kind, runs: changed, position };
  }
}

interface Client {
  cloth: SharedCloth;
  /** Marks made and not sent, and answers on their way. */
  outbox: { id: string; kind: MarkKind; runs: number[] }[];
  answers: { id: string; kind: MarkKind; runs: number[]; position: number | null }[];
  /** How many marks of the ledger its stream has brought. */
  told: number;
  /** What it did itself and was not told yet, in its order. */
  mine: { id: string; kind: MarkKind; runs: number[]; position: number | null }[];
  drag: { kind: MarkKind; runs: number[] }[];
}

/** What a screen has to show: the ledger as far as it was told, then what it did itself. */
function wanted(ledger: Ledger, { told, mine, drag }: Client): number[] {
  const laid = emptyBitmap(CELLS);
  for (const { kind, runs } of ledger.marks.slice(0, told)) applyMark(laid, kind, runs);
  for (const { kind, runs } of [...mine, ...drag]) {
    applyMark(laid, kind, changedCells({ lines, laid }, kind, runs));
  }
  return [...laid];
}

const act = fc.record({
  client: fc.nat(2),
  what: fc.constantFrom('mark', 'send', 'lose', 'answer', 'stream', 'skip', 'reload', 'drag', 'drop'),
  kind: fc.constantFrom<MarkKind>('lay', 'lift'),
  start: fc.nat(CELLS - 1),
  length: fc.integer({ min: 1, max: 4 }),
});

describe('a cloth on which several screens work', () => {
  it('shows the ledger everywhere once all was told, however acts, answers and tidings are mixed', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 3 }),
        fc.array(act, { maxLength: 120, size: 'max' }),
        (screens, acts) => {
          const ledger = new Ledger();
          const clients: Client[] = Array.from({ length: screens }, () => ({
            cloth: new SharedCloth(lines, emptyBitmap(CELLS), 0),
            outbox: [],
            answers: [],
            told: 0,
            mine: [],
            drag: [],
          }));
          let ids = 0;
          const stream = (client: Client) => {
            const next = ledger.marks[client.told];
            if (!next || !client.cloth.tell(next)) return;
            client.told++;
            client.mine = client.mine.filter(({ id }) => id !== next.id);
          };
          const reload = (client: Client) => {
            client.cloth.reset(ledger.laid, ledger.marks.at(-1)?.position ?? 0);
            client.told = ledger.marks.length;
            // What was not answered yet may be in it or not: nobody can say, so it stays on top.
            client.mine = client.mine.filter(({ position }) => position === null);
          };
          const send = (client: Client, lost: boolean) => {
            const [next] = client.outbox;
            if (!next) return;
            const answer = { id: next.id, ...ledger.enter(next.id, next.kind, next.runs) };
            // Without an answer it is sent again.
            if (lost) return;
            client.outbox.shift();
            client.answers.push(answer);
          };
          const answer = (client: Client) => {
            const next = client.answers.shift();
            if (!next) return;
            client.cloth.acknowledged(next.id, next.kind, next.runs, next.position);
            const mark = client.mine.find(({ id }) => id === next.id);
            if (next.position === null || next.position <= client.cloth.position) {
              client.mine = client.mine.filter((each) => each !== mark);
            } else Object.assign(mark!, next);
          };
          for (const { client: which, what, kind, start, length } of acts) {
            const client = clients[which % screens]!;
            const runs = [start, Math.min(length, CELLS - start)];
            // A stroke lays or lifts, and ends as one mark or as none.
            const stroke = client.drag[0]?.kind ?? kind;
            if (what === 'mark') {
              const changed = [...client.drag.map((each) => each.runs), client.cloth.preview(stroke, runs)];
              const all = runsFromCells(changed.flatMap((each) => [...cellsOfRuns(each)]));
              if (all.length === 0) continue;
              const id = `m${ids++}`;
              client.cloth.add(id, stroke, all);
              client.cloth.keep(id);
              client.outbox.push({ id, kind: stroke, runs: all });
              client.mine.push({ id, kind: stroke, runs: all, position: null });
              client.drag = [];
              // What one does shows at once.
              for (const cell of cellsOfRuns(all))
                expect(isLaid(client.cloth.shown, cell)).toBe(stroke === 'lay');
            } else if (what === 'drag')
              client.drag.push({ kind: stroke, runs: client.cloth.preview(stroke, runs) });
            else if (what === 'drop') {
              client.cloth.forget();
              client.drag = [];
            } else if (what === 'send') send(client, false);
            else if (what === 'lose') send(client, true);
            else if (what === 'answer') answer(client);
            else if (what === 'stream') stream(client);
            else if (what === 'reload') reload(client);
            else {
              // A tiding that comes too early is not taken.
              const later = ledger.marks[client.told + 1];
              if (later) expect(client.cloth.tell(later)).toBe(false);
            }
            expect([...client.cloth.shown]).toEqual(wanted(ledger, client));
          }
          for (const client of clients) {
            while (client.outbox.length > 0) send(client, false);
          }
          for (const client of clients) {
            client.cloth.forget();
            while (client.answers.length > 0) answer(client);
            while (client.told < ledger.marks.length) stream(client);
            expect([...client.cloth.shown]).toEqual([...ledger.laid]);
            expect([client.cloth.awaitsLedger, client.cloth.waits]).toEqual([false, 0]);
          }
        },
      ),
      { numRuns: 700 },
    );
  });

  it('keeps what is being drawn while others mark, and own marks on top until they are told', () => {
    const cloth = new SharedCloth(lines, emptyBitmap(CELLS), 0);
    cloth.preview('lay', [0, 2]);
    cloth.tell({ id: 'x', after: 0, position: 4, kind: 'lay', runs: [3, 1] });
    expect([0, 1, 2, 3].map((cell) => isLaid(cloth.shown, cell))).toEqual([true, true, false, true]);
    cloth.add('a', 'lay', [0, 2]);
    // Somebody laid and lifted one of them before mine came to the server.
    cloth.tell({ id: 'y', after: 4, position: 5, kind: 'lay', runs: [0, 1] });
    cloth.tell({ id: 'z', after: 5, position: 6, kind: 'lift', runs: [0, 1] });
    expect(isLaid(cloth.shown, 0)).toBe(true);
    cloth.acknowledged('a', 'lay', [0, 2], 7);
    expect(cloth.awaitsLedger).toBe(true);
    expect(isLaid(cloth.shown, 0)).toBe(true);
    cloth.tell({ id: 'a', after: 6, position: 7, kind: 'lay', runs: [0, 2] });
    expect(cloth.awaitsLedger).toBe(false);
  });

  it('forgets what no longer waits, such as a mark that was refused', () => {
    const cloth = new SharedCloth(lines, emptyBitmap(CELLS), 0);
    for (const [id, cell] of [
      ['a', 0],
      ['b', 1],
      ['c', 2],
    ] as const) {
      cloth.preview('lay', [cell, 1]);
      cloth.add(id, 'lay', [cell, 1]);
      if (id !== 'c') cloth.keep(id);
    }
    // “c” is on its way into the store, so it is not missed yet; “z” was left by an earlier page.
    cloth.waiting([
      { id: 'z', kind: 'lay', runs: [7, 1] },
      { id: 'b', kind: 'lay', runs: [1, 1] },
    ]);
    expect([0, 1, 2, 7].map((cell) => isLaid(cloth.shown, cell))).toEqual([false, true, true, true]);
  });
});

describe('what a screen knows of its own marks', () => {
  const made = () => new SharedCloth(lines, emptyBitmap(CELLS), 0);

  it('is how many wait for an answer, and whether the ledger has still to tell of one', () => {
    const cloth = made();
    expect([cloth.waits, cloth.awaitsLedger]).toEqual([0, false]);
    cloth.add('a', 'lay', [0, 2]);
    cloth.add('b', 'lay', [2, 1]);
    expect([cloth.waits, cloth.awaitsLedger]).toEqual([2, false]);
    cloth.acknowledged('a', 'lay', [0, 2], 1);
    expect([cloth.waits, cloth.awaitsLedger]).toEqual([1, true]);
    expect(cloth.tell({ id: 'a', after: 0, position: 1, kind: 'lay', runs: [0, 2] })).toBe(true);
    expect([cloth.waits, cloth.awaitsLedger]).toEqual([1, false]);
    expect(cloth.ledger().position).toBe(1);
    expect(isLaid(cloth.ledger().bitmap, 1)).toBe(true);
    expect(isLaid(cloth.ledger().bitmap, 2)).toBe(false);
  });

  it('tells a mark once, and nothing where one before it was missed', () => {
    const cloth = made();
    const first: LedgerMark = { id: 'x', after: 0, position: 3, kind: 'lay', runs: [0, 1] };
    expect(cloth.tell({ ...first, id: 'y', after: 3, position: 4, runs: [1, 1] })).toBe(false);
    expect(cloth.tell(first)).toBe(true);
    expect(cloth.tell({ ...first, kind: 'lift' })).toBe(true);
    expect(isLaid(cloth.shown, 0)).toBe(true);
  });

  it('keeps what is drawn of a stroke when a key lays something else meanwhile', () => {
    const cloth = made();
    cloth.preview('lay', [0, 3]);
    expect(cloth.preview('lay', [0, 3])).toEqual([]);
    cloth.add('key', 'lay', [1, 1]);
    cloth.waiting([]);
    expect([0, 1, 2, 3].map((cell) => isLaid(cloth.shown, cell))).toEqual([true, true, true, false]);
    cloth.forget();
    // The key’s mark stays; the rest of the stroke came to nothing.
    expect([0, 1, 2].map((cell) => isLaid(cloth.shown, cell))).toEqual([false, true, false]);
  });

  it('drops a mark that was kept for sending and waits no more, and none that is on its way to be kept', () => {
    const cloth = made();
    cloth.add('kept', 'lay', [0, 1]);
    cloth.add('new', 'lay', [1, 1]);
    cloth.keep('kept');
    cloth.keep('nobody');
    cloth.waiting([]);
    expect([0, 1].map((cell) => isLaid(cloth.shown, cell))).toEqual([false, true]);
  });

  it('shows what an earlier page left waiting, below its own', () => {
    const cloth = made();
    cloth.add('own', 'lift', [0, 1]);
    cloth.waiting([
      { id: 'earlier', kind: 'lay', runs: [0, 2] },
      { id: 'own', kind: 'lift', runs: [0, 1] },
    ]);
    expect(cloth.waits).toBe(2);
    expect([0, 1].map((cell) => isLaid(cloth.shown, cell))).toEqual([false, true]);
  });

  it('takes an answer that says something else than was sent, of the mark that was meant', () => {
    const cloth = made();
    cloth.add('a', 'lay', [0, 3]);
    cloth.add('b', 'lay', [6, 1]);
    // Another screen had laid two of the three.
    cloth.acknowledged('a', 'lay', [2, 1], 5);
    expect([0, 1, 2, 6].map((cell) => isLaid(cloth.shown, cell))).toEqual([false, false, true, true]);
    cloth.acknowledged('b', 'lay', [], null);
    expect(isLaid(cloth.shown, 6)).toBe(false);
    // Made by another tab of this browser, and told by its answer first.
    cloth.acknowledged('elsewhere', 'lay', [8, 1], 9);
    expect(isLaid(cloth.shown, 8)).toBe(true);
    expect(cloth.awaitsLedger).toBe(true);
  });
});
