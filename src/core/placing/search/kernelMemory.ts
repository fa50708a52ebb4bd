const PAGE_BYTES = 65_536;
const VECTOR_BYTES = 16;

/** A kernel in WebAssembly with the memory it works on, which grows with what is laid out in it. */
export class KernelMemory {
  private readonly memory = new WebAssembly.Memory({ initial: 1 });
  readonly exports: WebAssembly.Exports;
  private end = 0;

  /** @param kernel in base 64 @throws where the machine cannot run it, as browsers from before 2023 */
  constructor(kernel: string) {
    const bytes = Uint8Array.from(atob(kernel), (sign) => sign.charCodeAt(0));
    const module = new WebAssembly.Module(bytes);
    this.exports = new WebAssembly.Instance(module, { env: { memory: this.memory } }).exports;
  }

  get buffer(): ArrayBuffer {
    return this.memory.buffer;
  }

  /** Begins to lay out anew. @param bytes that are taken already */
  layFrom(bytes: number): void {
    this.end = bytes;
  }

  /** Takes room, from a whole vector on. @returns where it begins, in bytes */
  room(bytes: number): number {
    const at = (this.end + VECTOR_BYTES - 1) & -VECTOR_BYTES;
    this.end = at + bytes;
    return at;
  }

  /** The memory as words, with room for all that was taken. Of no use once it has grown. */
  words(): Int32Array {
    const lacking = this.end - this.memory.buffer.byteLength;
    if (lacking > 0) this.memory.grow(Math.ceil(lacking / PAGE_BYTES));
    return new Int32Array(this.memory.buffer);
  }
}
