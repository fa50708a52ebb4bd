import { type ScaleHabits, simulatedScale } from '../../../../core/checkin/simulatedScale';

/** Something that sends the scale protocol as text. */
export interface ScaleSource {
  /** Calls back with each piece of text until closed. */
  listen(onText: (text: string) => void): void;
  close(): void;
  /** Only a simulated scale can be loaded from here. */
  load?(grams: number): void;
}

const READING_EVERY_MS = 100;

/** The stand-in that ships with the app. */
export function simulatedSource(habits: ScaleHabits, seed: number): ScaleSource {
  const scale = simulatedScale(habits, seed);
  let timer: ReturnType<typeof setInterval> | undefined;
  return {
    listen: (onText) => {
      timer = setInterval(() => onText(scale.line()), READING_EVERY_MS);
    },
    close: () => clearInterval(timer),
    load: (grams) => scale.load(grams),
  };
}

/** The part of the Web Serial API that is used here; browsers without it have no `navigator.serial`. */
interface SerialPort {
  open(options: { baudRate: number }): Promise<void>;
  close(): Promise<void>;
  readable: ReadableStream<Uint8Array> | null;
}
interface Serial {
  requestPort(): Promise<SerialPort>;
}

export function serial(): Serial | null {
  return (navigator as Navigator & { serial?: Serial }).serial ?? null;
}

/** A real scale on a serial port that the user picks. */
export async function serialSource(ports: Serial): Promise<ScaleSource> {
  const port = await ports.requestPort();
  await port.open({ baudRate: 9600 });
  const reader = port.readable?.getReader();
  const decoder = new TextDecoder();
  let open = true;
  return {
    listen: (onText) => {
      void (async () => {
        while (open && reader) {
          const next = await reader.read().catch(() => ({ done: true, value: undefined }));
          if (next.done) break;
          onText(decoder.decode(next.value, { stream: true }));
        }
      })();
    },
    close: () => {
      if (!open) return;
      open = false;
      void reader
        ?.cancel()
        .catch(() => {})
        .then(() => reader.releaseLock())
        .then(() => port.close());
    },
  };
}
