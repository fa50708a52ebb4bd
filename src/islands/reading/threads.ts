import type { ReadingAnswer, ReadingOrder } from '../../workers/reading';

/** What a thread is to do, before it has a number. */
type Wish = ReadingOrder extends infer Order ? (Order extends unknown ? Omit<Order, 'id'> : never) : never;
type AnswerTo<What extends Wish['what']> = Extract<
  ReadingAnswer,
  { what: What extends 'examples' ? 'samples' : What }
>;

interface Waiting {
  wish: Wish;
  tell: (share: number) => void;
  resolve(answer: ReadingAnswer): void;
  reject(error: Error): void;
}

/** Said to whoever waits when the work is stopped. */
export class Stopped extends Error {}

/** A photo takes some hundred megabytes while it is read, so that few are read at once. */
const MOST_THREADS = 3;

/** Threads that read photos, several at once; what is more waits for its turn. */
export class ReadingThreads {
  private readonly idle: Worker[] = [];
  private readonly busy = new Map<Worker, Waiting>();
  private queue: Waiting[] = [];
  private orders = 0;

  /** @param most threads at once */
  constructor(
    private readonly most = Math.min(MOST_THREADS, navigator.hardwareConcurrency ?? 2),
    private readonly make = () =>
      new Worker(new URL('../../workers/reading.ts', import.meta.url), { type: 'module' }),
  ) {}

  /** @param tell told the share that is done @throws Error with a sentence, or Stopped */
  ask<What extends Wish['what']>(
    wish: Extract<Wish, { what: What }>,
    tell: (share: number) => void = () => {},
  ): Promise<AnswerTo<What>> {
    return new Promise<ReadingAnswer>((resolve, reject) => {
      this.queue.push({ wish: wish as Wish, tell, resolve, reject });
      this.next();
    }) as Promise<AnswerTo<What>>;
  }

  /** Ends everything; whoever waits is told. */
  stop(): void {
    for (const [worker, { reject }] of this.busy) {
      worker.terminate();
      reject(new Stopped());
    }
    this.busy.clear();
    for (const worker of this.idle.splice(0)) worker.terminate();
    for (const { reject } of this.queue) reject(new Stopped());
    this.queue = [];
  }

  private next(): void {
    const free = this.idle.pop() ?? (this.busy.size < this.most ? this.make() : null);
    if (!free) return;
    const waiting = this.queue.shift();
    if (!waiting) {
      this.idle.push(free);
      return;
    }
    const id = ++this.orders;
    this.busy.set(free, waiting);
    free.onmessage = ({ data }: MessageEvent<ReadingAnswer>) => {
      if (data.id !== id) return;
      if (data.what === 'progress') return waiting.tell(data.share);
      this.busy.delete(free);
      this.idle.push(free);
      if (data.what === 'fault') waiting.reject(new Error(data.words));
      else waiting.resolve(data);
      this.next();
    };
    free.onerror = () => {
      this.busy.delete(free);
      free.terminate();
      waiting.reject(new Error('The photo could not be read here. Load the page again.'));
      this.next();
    };
    free.postMessage({ ...waiting.wish, id } as ReadingOrder);
  }
}
