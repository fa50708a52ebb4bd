import type { MarkKind } from '../../core/bench/marking';
import { SharedCloth } from '../../core/bench/sharedCloth';
import type { Canvas } from '../../core/canvas/canvas';
import { countLaid } from '../../core/cells/bitmap';
import { type CellRuns, cellsOfRuns, runsFromCells, runsInParts } from '../../core/cells/cellRuns';
import { runsOfColumns } from '../../core/corrections/facts';
import type { UndoView } from '../../core/ledger/history';
import type { BenchView, MarkOffer, MarkView } from '../../server/bench/contract';
import type { ChangesView } from '../../server/live/contract';
import type { ClothData } from '../cloth/useClothData';
import type { LiveFeed } from '../live/feed';
import { keepLaid } from '../offline/keeping';
import { getBitmap, getJson, inWords } from '../writing/api';
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

/** An acknowledged mark that the stream has not told after so long is asked for. */
const TOLD_MS = 1500;
/** How long what others mark is gathered before it is drawn. */
const GATHER_MS = 100;
const GATHER_MANY_MS = 500;
/** From so many waiting marks on, their answers are gathered as well. */
const MANY = 20;
/** So many runs go into one mark (the server takes no more). */
const MOST_RUNS = 50_000;

type Follows = Pick<LiveFeed, 'follow' | 'subscribe'>;
type Waits = Pick<Outbox, 'put' | 'subscribe' | 'onAnswer' | 'waitingFor' | 'current'>;

/** A mark on its way, as its request holds it. */
interface MarkBody {
  id: string;
  kind: MarkKind;
  runs: CellRuns;
  columns?: number;
}

/**
 * What is marked on the canvas in hand: shown at once, sent in order through the outbox, and set right by what the ledger
 * says, which other screens write to as well. Knows nothing of React.
 */
export class MarkStore {
  private state: MarkState;
  private readonly listeners = new Set<() => void>();
  private aside = 0;
  private readonly cloth: SharedCloth;
  private asking: Promise<void> | null = null;
  /** Answers that wait until what others did is known. */
  private late: Promise<void> | null = null;
  private pending: Partial<MarkState> | null = null;
  private gathering: ReturnType<typeof setTimeout> | null = null;
  private check: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly canvas: Canvas,
    data: ClothData,
    first: BenchView,
    private readonly outbox: Waits,
    private readonly feed: Follows,
  ) {
    this.cloth = new SharedCloth(data.chart.cells, data.laid, data.position);
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
      this.outbox.onAnswer((canvasId, answer, own) => {
        if (canvasId === this.canvas.id && isMark(answer)) this.hear(answer, own);
      }),
      this.outbox.subscribe(() => void this.follow()),
      this.feed.subscribe((event) => {
        if (event.canvas !== this.canvas.id) return;
        if (event.kind === 'missed') void this.reload();
        else if (event.kind === 'mark') {
          if (this.cloth.tell(event.mark)) this.soon({});
          else void this.catchUp();
        }
      }),
    ];
    this.feed.follow(this.canvas.id);
    // Between the reading of what is laid and this moment somebody may have marked.
    void this.catchUp();
    void this.showWaiting();
    // The page was made before this screen had a name; what a mark answers meanwhile is newer.
    const { history: shown } = this.state;
    const known = (history: UndoView<MarkOffer>) => {
      if (this.state.history === shown) this.change({ history });
    };
    getJson<BenchView>(this.url).then(
      ({ history }) => known(history),
      // While nobody answers, undo takes back what it names, wherever that was done.
      () => known({ undo: shown.undo, redo: shown.redo }),
    );
    return () => {
      for (const stop of stops) stop();
      clearTimeout(this.check);
      if (this.gathering) clearTimeout(this.gathering);
      this.gathering = null;
    };
  }

  /** Shows squares as laid or lifted while a drag goes on; {@link commit} sends them. @returns those that changed */
  preview(kind: MarkKind, cells: readonly number[]): number[] {
    const runs = this.cloth.preview(kind, runsFromCells(cells));
    if (runs.length === 0) return [];
    this.shown();
    return [...cellsOfRuns(runs)];
  }

  /** Shows squares as they were before a {@link preview} that nothing comes of. */
  forget(): void {
    this.cloth.forget();
    this.shown();
  }

  /**
   * Sends a mark that is shown already.
   * @param more `before`: it was laid before the canvas was kept here; `popped`: of a lift, whether the drills came off
   * @returns ids of the entries it makes, in order: one, or several for a mark of very many pieces
   */
  commit(
    kind: MarkKind,
    cells: readonly number[],
    sittingId: string | null,
    more: { before?: true; popped?: boolean } = {},
  ): string[] {
    this.change({ fault: null });
    const ids: string[] = [];
    for (const runs of runsInParts(runsFromCells(cells), MOST_RUNS)) {
      const id = crypto.randomUUID();
      ids.push(id);
      this.cloth.add(id, kind, runs);
      // Not saved from this moment on, before the outbox has taken it in.
      this.change({ waiting: this.cloth.waits });
      const body = { id, kind, runs, columns: this.canvas.width, sittingId, ...more };
      void this.outbox.put('POST', this.url, body, this.canvas.id).then(() => this.cloth.keep(id));
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

  /** What another one had laid before stays laid here, and does not vanish until the ledger tells of it. */
  private hear(answer: MarkView, own: boolean): void {
    const isBehind = this.cloth.waits <= MANY && this.cloth.didLess(answer.id, answer.runs);
    if (!isBehind && this.late === null) {
      this.take(answer, own);
      return;
    }
    // Answers are taken in their order: the last one says what undo acts on.
    const turn = (this.late ?? Promise.resolve()).then(async () => {
      if (isBehind) await this.catchUp();
      this.take(answer, own);
      if (this.late === turn) this.late = null;
    });
    this.late = turn;
  }

  /** @param own whether it was made at this screen: another one's undo is none of this */
  private take({ id, kind, runs, position, history }: MarkView, own: boolean): void {
    this.cloth.acknowledged(id, kind, runs, position);
    const part = { ...(own ? { history } : {}), waiting: this.cloth.waits };
    // What one does shows at once; the day that a device was away comes back in thousands.
    if (this.cloth.waits > MANY) this.soon(part);
    else this.shown(part);
    clearTimeout(this.check);
    this.check = setTimeout(() => this.cloth.awaitsLedger && void this.catchUp(), TOLD_MS);
  }

  /** Asks for what the ledger holds beyond what was told here. */
  private catchUp(): Promise<void> {
    this.asking ??= this.askLedger().finally(() => {
      this.asking = null;
    });
    return this.asking;
  }

  private async askLedger(): Promise<void> {
    try {
      const url = `/api/canvases/${this.canvas.id}/changes?after=0-${this.cloth.position}`;
      const { marks, tooMuch } = await getJson<ChangesView>(url);
      if (tooMuch) await this.reload();
      else if (marks.filter((mark) => this.cloth.tell(mark)).length > 0) this.shown();
    } catch {
      // Whether the server answers is told elsewhere; what comes next shows that something was missed.
    }
  }

  /** A mark that was set aside or dropped is no longer shown. */
  private async follow(): Promise<void> {
    const aside = this.outbox.current().aside.filter(({ url }) => url === this.url).length;
    if (aside === this.aside) return;
    this.aside = aside;
    await this.reload();
  }

  private async reload(): Promise<void> {
    try {
      const asked = this.cloth.position;
      const { laid, position } = await getBitmap(this.canvas.id);
      // What the ledger told meanwhile, without a gap, is newer. Where nothing was told, an older place is that of a
      // database that was put back.
      if (position >= this.cloth.position || this.cloth.position === asked) this.cloth.reset(laid, position);
      await this.showWaiting();
    } catch (error) {
      this.change({ fault: inWords(error) });
    }
  }

  private async showWaiting(): Promise<void> {
    const waiting = (await this.outbox.waitingFor(this.canvas.id)).filter(({ url }) => url === this.url);
    this.cloth.waiting(
      waiting
        .map(({ body }) => body as Partial<MarkBody>)
        .filter((body): body is MarkBody => Boolean(body.kind && body.runs))
        .map((body) => ({ ...body, runs: runsOfColumns(body.runs, body.columns, this.canvas) })),
    );
    this.shown({ waiting: this.cloth.waits });
  }

  /** As {@link shown}, at once or, where much happens, a little later together with what comes meanwhile. */
  private soon(part: Partial<MarkState>): void {
    this.pending = { ...this.pending, ...part };
    if (this.gathering) return;
    this.shown({});
    const wait = this.cloth.waits > MANY ? GATHER_MANY_MS : GATHER_MS;
    this.gathering = setTimeout(() => {
      this.gathering = null;
      if (this.pending) this.shown({});
    }, wait);
  }

  private shown(part: Partial<MarkState> = {}): void {
    const pending = this.pending;
    this.pending = null;
    this.change({ ...pending, ...part, laid: countLaid(this.cloth.shown), version: this.state.version + 1 });
    keepLaid(this.canvas.id, () => this.cloth.ledger());
  }

  private change(part: Partial<MarkState>): void {
    this.state = { ...this.state, ...part };
    for (const listener of this.listeners) listener();
  }
}

function isMark(answer: unknown): answer is MarkView {
  return typeof answer === 'object' && answer !== null && 'runs' in answer && 'history' in answer;
}
