import { useEffect, useRef, useState } from 'react';
import type { CodeFound, CodePicture } from '../../workers/codes';

/** Long side of the pictures that are looked at, in pixels: enough for a label held at arm's length. */
const LONGEST = 960;
const PAUSE_MS = 120;
/** A code counts once it was read twice in a row: bars of a wrinkled bag can be misread once. */
const TIMES = 2;
/** After so many pictures without a code, the same one is another bag. */
const GONE = 5;

/** Something that shows pictures and can be drawn: a camera's video, or a stand-in. */
export interface CodeSource {
  draw(context: CanvasRenderingContext2D, longest: number): { width: number; height: number } | null;
}

/**
 * Looks for codes in what a source shows, in a thread of its own.
 * @param source null while there is none
 * @param onText called once for each code that comes into view
 * @returns whether pictures are looked at, and whether the thread could not be had or broke down
 */
export function useCodeReader(
  source: CodeSource | null,
  onText: (text: string) => void,
): { looking: boolean; failed: boolean } {
  const [looking, setLooking] = useState(false);
  const [failed, setFailed] = useState(false);
  const newest = useRef(onText);
  newest.current = onText;
  useEffect(() => {
    if (!source) return;
    const worker = new Worker(new URL('../../workers/codes.ts', import.meta.url), { type: 'module' });
    const context = document.createElement('canvas').getContext('2d', { willReadFrequently: true })!;
    let [id, last, times, empty] = [0, null as string | null, 0, 0];
    let timer: ReturnType<typeof setTimeout>;
    const look = () => {
      const size = source.draw(context, LONGEST);
      if (!size) {
        timer = setTimeout(look, PAUSE_MS);
        return;
      }
      setLooking(true);
      const { data } = context.getImageData(0, 0, size.width, size.height);
      const grey = new Uint8ClampedArray(size.width * size.height);
      for (let i = 0; i < grey.length; i++) {
        grey[i] = (data[i * 4]! * 2 + data[i * 4 + 1]! * 5 + data[i * 4 + 2]!) >> 3;
      }
      worker.postMessage({ id: ++id, ...size, grey } satisfies CodePicture, [grey.buffer]);
    };
    worker.onmessage = ({ data }: MessageEvent<CodeFound>) => {
      empty = data.text === null ? empty + 1 : 0;
      if (empty === GONE) last = null;
      if (data.text !== null) {
        times = data.text === last ? times + 1 : 1;
        last = data.text;
        if (times === TIMES) newest.current(data.text);
      }
      timer = setTimeout(look, PAUSE_MS);
    };
    worker.onerror = () => {
      clearTimeout(timer);
      setFailed(true);
    };
    look();
    return () => {
      clearTimeout(timer);
      worker.terminate();
      setLooking(false);
      setFailed(false);
    };
  }, [source]);
  return { looking, failed };
}
