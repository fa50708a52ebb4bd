import { Duplex } from 'node:stream';
import type { PGlite } from '@electric-sql/pglite';

/** PostgreSQL’s message of a client that goes. */
const TERMINATE = 'X'.charCodeAt(0);

/**
 * What a driver of PostgreSQL sees instead of a socket: its messages go to a PGlite in this process. There the driver is
 * the one client, and waits for each answer before it asks again.
 */
export class InsideStream extends Duplex {
  readonly #pglite: PGlite;

  constructor(pglite: PGlite) {
    // Answers come all at once: there is nobody to hold back.
    super({ readableHighWaterMark: Number.MAX_SAFE_INTEGER, writableHighWaterMark: Number.MAX_SAFE_INTEGER });
    this.#pglite = pglite;
  }

  /** As a socket does, after which the driver begins. */
  connect(): this {
    process.nextTick(() => this.emit('connect'));
    return this;
  }

  /** Drivers ask sockets for these; here nothing is sent anywhere. */
  setNoDelay(): this {
    return this;
  }
  setKeepAlive(): this {
    return this;
  }
  ref(): this {
    return this;
  }
  unref(): this {
    return this;
  }

  override _read(): void {}

  override _write(chunk: Buffer, _encoding: BufferEncoding, done: (error?: Error | null) => void): void {
    let answer: Uint8Array | null = null;
    let fault: Error | null = null;
    try {
      // PGlite tells the database so itself when it is closed.
      if (chunk[0] !== TERMINATE) answer = this.#pglite.execProtocolRawSync(chunk);
    } catch (error) {
      fault = error as Error;
    }
    // Not at once: the driver may be in the midst of the answer before, out of which it asks.
    process.nextTick(() => {
      if (answer) this.push(Buffer.from(answer.buffer, answer.byteOffset, answer.byteLength));
      done(fault);
    });
  }

  /** The messages of one query are one step into the database and back. */
  override _writev(
    chunks: { chunk: Buffer; encoding: BufferEncoding }[],
    done: (error?: Error | null) => void,
  ): void {
    this._write(Buffer.concat(chunks.map(({ chunk }) => chunk)), 'utf8', done);
  }

  override _final(done: () => void): void {
    this.push(null);
    done();
  }
}
