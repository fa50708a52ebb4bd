import { act } from '@testing-library/react';

/** A thread that answers when the test says. */
export class StandInWorker {
  static all: StandInWorker[] = [];
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: (() => void) | null = null;
  got: unknown[] = [];
  ended = false;
  constructor() {
    StandInWorker.all.push(this);
  }
  postMessage(task: unknown) {
    this.got.push(task);
  }
  terminate() {
    this.ended = true;
  }
  say(data: unknown) {
    act(() => this.onmessage?.({ data }));
  }
}
