import type { Chart } from '../../core/cells/chart';
import { chartFromBytes } from '../../core/cells/chart';
import { applyEdit, type CellEdit } from '../../core/chart/edit';
import { runsOfColumns } from '../../core/corrections/facts';
import type { RepairView } from '../../server/chart/contract';
import { getBytes, getJson, inWords } from '../writing/api';
import type { Outbox } from '../writing/outbox';

export interface RepairState {
  view: RepairView;
  /** Changes with every change of the chart, whose cells are changed in place. */
  version: number;
  fault: string | null;
}

type Waits = Pick<Outbox, 'put' | 'waitingFor'>;

/** Changes of a chart: shown at once, sent in order, and set right by what the server says. Knows nothing of React. */
export class RepairStore {
  private state: RepairState;
  private readonly listeners = new Set<() => void>();
  /** Readings of the whole chart so far; only the last one counts. */
  private readings = 0;
  /** The view that goes with the chart that is being read; null while none is. */
  private coming: RepairView | null = null;
  /** Edits of this page that are not answered yet, by their id. */
  private readonly own = new Map<string, CellEdit[]>();
  /** Whether another screen changed the chart while something of this one was on its way. */
  private missed = false;

  /** @param chart its cells are changed in place */
  constructor(
    private readonly canvasId: string,
    private readonly chart: Chart,
    first: RepairView,
    private readonly outbox: Waits,
  ) {
    this.state = { view: first, version: 0, fault: null };
  }

  private get url(): string {
    return `/api/canvases/${this.canvasId}/chart-edits`;
  }

  readonly snapshot = (): RepairState => this.state;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Shows what waits from an earlier page, and asks what undo acts on at this screen. */
  start(): void {
    void this.showWaiting();
    const { view: shown } = this.state;
    getJson<RepairView>(this.url).then(
      (view) => {
        // What was answered meanwhile is newer.
        if (this.state.view === shown) this.change({ view });
      },
      () => {},
    );
  }

  /** Another screen changed the chart. */
  async refresh(): Promise<void> {
    if ((await this.outbox.waitingFor(this.canvasId)).some(({ url }) => url === this.url)) {
      this.missed = true;
      return;
    }
    const { view: shown } = this.state;
    try {
      const view = await getJson<RepairView>(this.url);
      // What was answered meanwhile is newer, and may not know of the change yet.
      if (this.state.view === shown) await this.reload(view);
      else await this.refresh();
    } catch {
      // What is shown stays; the next change brings it up to date.
    }
  }

  setFault(fault: string | null): void {
    this.change({ fault });
  }

  /** Sets cells. What changes nothing is not sent. */
  set(edits: CellEdit[]): void {
    const changed = edits.map((edit) => applyEdit(this.chart, edit).size > 0);
    this.change({ version: this.state.version + 1, fault: null });
    if (changed.some(Boolean)) this.send({ edits });
  }

  undo(id: string): void {
    this.send({ undoes: id });
  }

  redo(id: string): void {
    this.send({ redoes: id });
  }

  private send(what: { edits: CellEdit[] } | { undoes: string } | { redoes: string }): void {
    const id = crypto.randomUUID();
    if ('edits' in what) this.own.set(id, what.edits);
    const counted = 'edits' in what ? { columns: this.chart.width } : {};
    void this.outbox.put('POST', this.url, { id, ...what, ...counted }, this.canvasId, {
      answered: (view) => {
        this.own.delete(id);
        // Undo may add or take away a line of the sheet: the chart and its legend change together.
        if ('edits' in what) this.change({ view: view as RepairView, fault: null });
        // A chart that is being read may be of before this change.
        if (!('edits' in what) || this.missed || this.coming) void this.reload(view as RepairView);
      },
      refused: (error) => {
        this.own.delete(id);
        this.change({ fault: inWords(error) });
        void this.reload();
      },
      away: () => {},
    });
  }

  /** The chart as the server has it, with what is still on its way. @param view that goes with it */
  private async reload(view: RepairView = this.coming ?? this.state.view): Promise<void> {
    const mine = ++this.readings;
    this.coming = view;
    this.missed = false;
    try {
      const bytes = await getBytes(`/api/canvases/${this.canvasId}/chart`);
      if (mine !== this.readings) return;
      this.chart.cells.set(chartFromBytes(this.chart.width, this.chart.height, bytes).cells);
      this.change({ view, version: this.state.version + 1 });
      await this.showWaiting();
    } catch (error) {
      if (mine !== this.readings) return;
      this.missed = true;
      this.change({ fault: inWords(error) });
    } finally {
      if (mine === this.readings) this.coming = null;
    }
  }

  private async showWaiting(): Promise<void> {
    const waiting = (await this.outbox.waitingFor(this.canvasId))
      .filter(({ url }) => url === this.url)
      .map(({ body }) => body as { id: string; edits?: CellEdit[]; columns?: number });
    const kept = new Set(waiting.map(({ id }) => id));
    // What was done a moment ago is not kept for sending yet.
    const latest = [...this.own].filter(([id]) => !kept.has(id)).map(([, edits]) => edits);
    const here = waiting.map(({ edits = [], columns }) =>
      edits.map((edit) => ({ ...edit, runs: runsOfColumns(edit.runs, columns, this.chart) })),
    );
    for (const edit of [...here, ...latest].flat()) applyEdit(this.chart, edit);
    this.change({ version: this.state.version + 1 });
  }

  private change(part: Partial<RepairState>): void {
    this.state = { ...this.state, ...part };
    for (const listener of this.listeners) listener();
  }
}
