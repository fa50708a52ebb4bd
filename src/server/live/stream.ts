import type { Reader } from './hub';

/** Said now and then, so that connections are not taken for dead, and dead ones are noticed. */
const BEAT_MS = 20_000;
/** A browser whose connection broke comes back after so long. */
const RETRY_MS = 1000;
/** A reader that lets so much pile up is sent away; it comes back and is told what it missed. */
const MOST_WAITING_BYTES = 2_000_000;

/**
 * A stream of events (the HTML standard's server-sent events).
 * @param begin attaches the reader. @returns stops; null where it cannot read
 * @returns null where it could not begin
 */
export async function eventStream(
  device: Reader['device'],
  begin: (reader: Reader) => Promise<(() => void) | null> | (() => void) | null,
): Promise<Response | null> {
  let controller!: ReadableStreamDefaultController<Uint8Array>;
  let stop: (() => void) | null = null;
  let beat: ReturnType<typeof setInterval> | null = null;
  let over = false;
  const text = new TextEncoder();
  const end = () => {
    if (over) return;
    over = true;
    if (beat) clearInterval(beat);
    stop?.();
  };
  const close = () => {
    if (over) return;
    end();
    controller.close();
  };
  const write = (words: string) => {
    if (over) return;
    controller.enqueue(text.encode(words));
    if ((controller.desiredSize ?? 1) <= 0) close();
  };
  const body = new ReadableStream<Uint8Array>(
    {
      start: (own) => {
        controller = own;
      },
      cancel: end,
    },
    { highWaterMark: MOST_WAITING_BYTES, size: (chunk) => chunk?.byteLength ?? 0 },
  );
  write(`retry: ${RETRY_MS}\n\n`);
  stop = await begin({
    device,
    send: (event, data, id) =>
      write(`${id === null ? '' : `id: ${id}\n`}event: ${event}\ndata: ${JSON.stringify(data)}\n\n`),
    close,
  });
  if (!stop) {
    close();
    return null;
  }
  // It may have been sent away while it began.
  if (over) (stop as () => void)();
  beat = setInterval(() => write('event: beat\ndata: {}\n\n'), BEAT_MS);
  beat.unref();
  return new Response(body, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
}
