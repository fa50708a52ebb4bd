import { applyMark, changedCells, inverseOf, type MarkKind } from '../../core/bench/marking';
import type { Canvas } from '../../core/canvas/canvas';
import { type Bitmap, countLaid } from '../../core/cells/bitmap';
import { type CellRuns, cellsOfRuns, runsFromCells, runsInParts } from '../../core/cells/cellRuns';
import type { UndoView } from '../../core/ledger/history';
import type { BenchView, MarkOffer, MarkView } from '../../server/bench/contract';
import type { ClothData } from '../cloth/useClothData';
import { getBytes, getJson, inWords } from '../writing/api';
import type { Outbox } from '../writing/outbox';

/** How the marks of a canvas stand, as one screen shows them. */
export interface MarkState {
  /** Drills laid, with those that are not saved yet. */
  laid: number;
  /** Changes with every change of the bitmap, which itself is changed in place. */
  version: number;
  history: UndoView<MarkOffer>;
  /** Marks that are not acknowledged yet. */
  waiting: number;
  fault: string | null;
}

/** So many runs go into one mark (the server takes no more). */
const MOST_RUNS = 50_000;

type Waits = Pick<Outbox, 'put' | 'subscribe' | 'onAnswer' | 'waitingFor' | 'current'>;

/** A mark on its way, as its request holds it. */
interface MarkBody {
  kind: MarkKind;
  runs: CellRuns;
}

/**
 * What is marked on the canvas in hand: shown at once, sent in order through the outbox, and set right by what the
 * server says. Knows nothing of React.
 */
export class MarkStore {
  private state: MarkState;
  private readonly listeners = new Set<() => void>();
  private aside = 0;

  constructor(
    private readonly canvas: Canvas,
    private readonly data: ClothData,
    first: BenchView,
    private readonly outbox: Waits,
  ) {
    this.state = { laid: first.laid, version: 0, history: first.history, waiting: 0, fault: null };
  }

  private get url(): string {
    return `/api/canvases/${this.canvas.id}/marks`;
  }

  readonly snapshot = (): MarkState => this.state;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Shows what waits from an earlier page, and follows the outbox. @returns stops */
  start(): () => void {
    const stops = [
      this.outbox.onAnswer((canvasId, answer) => {
        if (canvasId === this.canvas.id && isMark(answer)) this.take(answer);
      }),
      this.outbox.subscribe(() => void this.follow()),
    ];
    void this.showWaiting();
    // The page was made before this screen had a name; what a mark answers meanwhile is newer.
    const { history: shown } = this.state;
    getJson<BenchView>(this.url).then(
      ({ history }) => {
        if (this.state.history === shown) this.change({ history });
      },
      () => {},
    );
    return () => {
      for (const stop of stops) stop();
    };
  }

  /** Shows squares as laid or lifted while a drag goes on; {@link commit} sends them. @returns those that changed */
  preview(kind: MarkKind, cells: readonly number[]): number[] {
    const runs = changedCells(
      { lines: this.data.chart.cells, laid: this.data.laid },
      kind,
      runsFromCells(cells),
    );
    if (runs.length === 0) return [];
    applyMark(this.data.laid, kind, runs);
    this.shown();
    return [...cellsOfRuns(runs)];
  }

  /** Shows squares as they were before a {@link preview} that nothing comes of. */
  forget(kind: MarkKind, cells: readonly number[]): void {
    applyMark(this.data.laid, inverseOf(kind), runsFromCells(cells));
    this.shown();
  }

  /**
   * Sends a mark that is shown already.
   * @param before it was laid before the canvas was kept here
   * @returns ids of the entries it makes, in order: one, or several for a mark of very many pieces
   */
  commit(kind: MarkKind, cells: readonly number[], sittingId: string | null, before = false): string[] {
    this.change({ fault: null });
    const ids: string[] = [];
    for (const runs of runsInParts(runsFromCells(cells), MOST_RUNS)) {
      // Not saved from this moment on, before the outbox has taken it in.
      this.change({ waiting: this.state.waiting + 1 });
      const id = crypto.randomUUID();
      ids.push(id);
      const body = { id, kind, runs, sittingId, ...(before ? { before } : {}) };
      void this.outbox.put('POST', this.url, body, this.canvas.id);
    }
    return ids;
  }

  undo(id: string): void {
    this.step({ undoes: id });
  }

  redo(id: string): void {
    this.step({ redoes: id });
  }

  private step(what: { undoes: string } | { redoes: string }): void {
    this.change({ fault: null });
    void this.outbox.put('POST', this.url, { id: crypto.randomUUID(), ...what }, this.canvas.id, {
      answered: () => {},
      refused: (error) => this.change({ fault: inWords(error) }),
      away: () => {},
    });
  }

  private take({ kind, runs, history }: MarkView): void {
    applyMark(this.data.laid, kind, runs);
    this.shown();
    this.change({ history });
  }

  /** Counts what waits; a mark that was set aside or dropped is no longer shown. */
  private async follow(): Promise<void> {
    const waiting = (await this.outbox.waitingFor(this.canvas.id)).filter(({ url }) => url === this.url);
    const aside = this.outbox.current().aside.filter(({ url }) => url === this.url).length;
    this.change({ waiting: waiting.length });
    if (aside === this.aside) return;
    this.aside = aside;
    await this.reload();
  }

  private async reload(): Promise<void> {
    try {
      const fresh: Bitmap = await getBytes(`/api/canvases/${this.canvas.id}/bitmap`);
      this.data.laid.set(fresh);
      await this.showWaiting();
    } catch (error) {
      this.change({ fault: inWords(error) });
    }
  }

  private async showWaiting(): Promise<void> {
    const waiting = (await this.outbox.waitingFor(this.canvas.id)).filter(({ url }) => url === this.url);
    for (const { body } of waiting) {
      const { kind, runs } = body as Partial<MarkBody>;
      if (kind && runs) applyMark(this.data.laid, kind, changedCells(this.ground(), kind, runs));
    }
    this.change({ waiting: waiting.length });
    this.shown();
  }

  private ground() {
    return { lines: this.data.chart.cells, laid: this.data.laid };
  }

  private shown(): void {
    this.change({ laid: countLaid(this.data.laid), version: this.state.version + 1 });
  }

  private change(part: Partial<MarkState>): void {
    this.state = { ...this.state, ...part };
    for (const listener of this.listeners) listener();
  }
}

function isMark(answer: unknown): answer is MarkView {
  return typeof answer === 'object' && answer !== null && 'runs' in answer && 'history' in answer;
}
