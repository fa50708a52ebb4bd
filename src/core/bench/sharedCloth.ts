import type { Bitmap } from '../cells/bitmap';
import { type CellRuns, cellsOfRuns, countCells, runsFromCells } from '../cells/cellRuns';
import { applyMark, changedCells, type MarkKind } from './marking';

/** A mark as the ledger tells it. */
export interface LedgerMark {
  id: string;
  /** Places of the mark before it on this canvas, and of its own. */
  after: number;
  position: number;
  kind: MarkKind;
  /** The cells that it changed. */
  runs: CellRuns;
}

/** A mark that is shown and that the ledger has not told here yet. */
interface OwnMark {
  id: string;
  kind: MarkKind;
  runs: CellRuns;
  /** Its place in the ledger, once it was acknowledged. */
  position: number | null;
  /** Whether it is kept for sending, so that it counts as lost when it no longer waits. */
  kept: boolean;
}

/**
 * What is laid, as one screen shows it while others work too: what the ledger has told, mark by mark in its order, and on
 * top of it what this screen did and the ledger has not told yet. Whoever was told the same marks, and waits for none of
 * their own, shows the same.
 */
export class SharedCloth {
  private readonly base: Bitmap;
  private own: OwnMark[] = [];
  private drag: { kind: MarkKind; runs: CellRuns }[] = [];

  /**
   * @param lines legend line by cell; 0 where no drill goes
   * @param shown what is laid as the ledger has it; changed in place from now on
   * @param position of the last mark in it
   */
  constructor(
    private readonly lines: Uint16Array,
    readonly shown: Bitmap,
    private at: number,
  ) {
    this.base = shown.slice();
  }

  /** Place in the ledger up to which it was told. */
  get position(): number {
    return this.at;
  }

  /** What is laid as far as the ledger has told. */
  ledger(): { bitmap: Bitmap; position: number } {
    return { bitmap: this.base, position: this.at };
  }

  /** Marks that are not acknowledged yet. */
  get waits(): number {
    return this.own.filter(({ position }) => position === null).length;
  }

  /** Whether an acknowledged mark of this screen is still to be told by the ledger. */
  get awaitsLedger(): boolean {
    return this.own.some(({ position }) => position !== null);
  }

  /** Shows cells while a stroke goes on. @returns runs of those that changed */
  preview(kind: MarkKind, runs: CellRuns): number[] {
    const changed = this.changed(kind, runs);
    if (changed.length === 0) return [];
    applyMark(this.shown, kind, changed);
    this.drag.push({ kind, runs: changed });
    return changed;
  }

  /** Nothing comes of the stroke. */
  forget(): void {
    this.drag = [];
    this.draw();
  }

  /** These cells of the stroke are a mark now. */
  add(id: string, kind: MarkKind, runs: CellRuns): void {
    const drawn = this.drag.reduce((sum, each) => sum + countCells(each.runs), 0);
    // Nearly always that is all of it; a key may lay something else while a stroke goes on.
    if (drawn <= countCells(runs)) this.drag = [];
    else {
      const taken = new Set(cellsOfRuns(runs));
      this.drag = this.drag.map((each) => ({
        kind: each.kind,
        runs: runsFromCells([...cellsOfRuns(each.runs)].filter((cell) => !taken.has(cell))),
      }));
    }
    this.own.push({ id, kind, runs, position: null, kept: false });
  }

  /** Marks that wait to be sent, in their order: what no longer waits and was not acknowledged is gone. */
  waiting(marks: readonly { id: string; kind: MarkKind; runs: CellRuns }[]): void {
    const ids = new Set(marks.map(({ id }) => id));
    this.own = this.own.filter(({ id, position, kept }) => position !== null || !kept || ids.has(id));
    const known = new Set(this.own.map(({ id }) => id));
    const fresh = marks.filter(({ id }) => !known.has(id));
    // What an earlier page left waiting was made before anything of this one.
    this.own = [...fresh.map((mark) => ({ ...mark, position: null, kept: true })), ...this.own];
    this.draw();
  }

  /** A mark is kept for sending. */
  keep(id: string): void {
    const mark = this.own.find((each) => each.id === id);
    if (mark) mark.kept = true;
  }

  /** Whether a mark of this screen did less than it asked for: then the ledger has something that was not told here. */
  didLess(id: string, runs: CellRuns): boolean {
    const mark = this.own.find((each) => each.id === id);
    return mark !== undefined && countCells(runs) < countCells(mark.runs);
  }

  /** A mark of this browser was acknowledged. @param position null where it changed nothing */
  acknowledged(id: string, kind: MarkKind, runs: CellRuns, position: number | null): void {
    const mark = this.own.find((each) => each.id === id);
    if (position === null || position <= this.at) this.own = this.own.filter((each) => each !== mark);
    else if (mark) {
      mark.position = position;
      // After a day away thousands are acknowledged in a row: what changes nothing is not drawn.
      if (mark.kind === kind && countCells(mark.runs) === countCells(runs)) return;
      Object.assign(mark, { kind, runs });
    } else this.own.push({ id, kind, runs, position, kept: true });
    this.draw();
  }

  /** The next mark of the ledger. @returns false where one before it was missed, so that nothing was done */
  tell(mark: LedgerMark): boolean {
    if (mark.position <= this.at) return true;
    if (mark.after > this.at) return false;
    applyMark(this.base, mark.kind, mark.runs);
    if (this.own[0]?.id === mark.id) {
      // It is shown already, below all else that is this screen's own.
      this.at = mark.position;
      this.own.shift();
    } else {
      this.own = this.own.filter(({ id }) => id !== mark.id);
      this.reached(mark.position);
    }
    return true;
  }

  /** What is laid, read anew. @param position of the last mark in it */
  reset(laid: Bitmap, position: number): void {
    this.base.set(laid);
    this.reached(position);
  }

  private reached(position: number): void {
    this.at = position;
    this.own = this.own.filter((mark) => mark.position === null || mark.position > position);
    this.draw();
  }

  private changed(kind: MarkKind, runs: CellRuns): number[] {
    return changedCells({ lines: this.lines, laid: this.shown }, kind, runs);
  }

  private draw(): void {
    this.shown.set(this.base);
    for (const { kind, runs } of [...this.own, ...this.drag])
      applyMark(this.shown, kind, this.changed(kind, runs));
  }
}
