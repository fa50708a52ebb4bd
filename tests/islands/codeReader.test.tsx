// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, renderHook, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { ScanButton } from '../../src/islands/scanning/ScanButton';
import { type CodeSource, useCodeReader } from '../../src/islands/scanning/useCodeReader';
import { TOO_SOON_MS } from '../../src/ui/useTooSoon';
import { line, sampleCanvas } from '../core/samples';
import { StandInWorker } from './standInWorker';

const context = {
  canvas: {},
  drawImage: () => {},
  getImageData: (_x: number, _y: number, width: number, height: number) => ({
    data: new Uint8ClampedArray(width * height * 4).fill(200),
  }),
};
beforeEach(() => {
  StandInWorker.all = [];
  vi.useFakeTimers();
  vi.stubGlobal('Worker', StandInWorker);
  vi.spyOn(HTMLCanvasElement.prototype, 'getContext').mockReturnValue(context as never);
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

/** The thread answers for one picture, and the next is taken. */
async function sees(text: string | null) {
  const [thread] = StandInWorker.all;
  thread!.say({ id: thread!.got.length, text });
  await act(async () => void vi.advanceTimersByTime(130));
}

it('tells a code once it was read twice in a row, and again only after it was gone', async () => {
  const source: CodeSource = { draw: () => ({ width: 4, height: 2 }) };
  const told = vi.fn();
  const { result, unmount } = renderHook(() => useCodeReader(source, told));
  expect(result.current.looking).toBe(true);
  const [thread] = StandInWorker.all;
  // White is white: the weights of the three colours make up the whole.
  expect(thread!.got[0]).toMatchObject({ width: 4, height: 2, grey: new Uint8ClampedArray(8).fill(200) });
  await sees('412');
  expect(told).not.toHaveBeenCalled();
  await sees('413');
  await sees('412');
  expect(told).not.toHaveBeenCalled();
  await sees('412');
  await sees('412');
  expect(told.mock.calls).toEqual([['412']]);
  // A blurred picture or two are no other bag.
  await sees(null);
  await sees('412');
  await sees('412');
  expect(told).toHaveBeenCalledOnce();
  for (let i = 0; i < 5; i++) await sees(null);
  await sees('412');
  await sees('412');
  expect(told).toHaveBeenCalledTimes(2);
  expect(thread!.got.length).toBeGreaterThan(10);
  unmount();
  expect(thread!.ended).toBe(true);
});

it('waits for a camera that shows nothing yet, and needs none without a source', async () => {
  let ready = false;
  const source: CodeSource = { draw: () => (ready ? { width: 2, height: 2 } : null) };
  const { result } = renderHook(() => useCodeReader(source, () => {}));
  await act(async () => void vi.advanceTimersByTime(500));
  expect([result.current.looking, StandInWorker.all[0]!.got.length]).toEqual([false, 0]);
  ready = true;
  await act(async () => void vi.advanceTimersByTime(130));
  expect(StandInWorker.all[0]!.got).toHaveLength(1);
  renderHook(() => useCodeReader(null, () => {}));
  expect(StandInWorker.all).toHaveLength(1);
});

it('tells that the thread broke down, and tries again with the next source', async () => {
  const first: CodeSource = { draw: () => ({ width: 2, height: 2 }) };
  const second: CodeSource = { draw: () => ({ width: 2, height: 2 }) };
  const { result, rerender } = renderHook(({ source }) => useCodeReader(source, () => {}), {
    initialProps: { source: first },
  });
  expect(result.current.failed).toBe(false);
  act(() => StandInWorker.all[0]!.onerror?.());
  expect(result.current.failed).toBe(true);
  await act(async () => void vi.advanceTimersByTime(500));
  expect(StandInWorker.all[0]!.got).toHaveLength(1);
  rerender({ source: second });
  expect(result.current).toEqual({ looking: true, failed: false });
  expect(StandInWorker.all).toHaveLength(2);
});

it('a bag that comes before the camera in the moment of a tap is not the one that was meant', async () => {
  let now = 10_000;
  vi.spyOn(performance, 'now').mockImplementation(() => now);
  const camera = { getUserMedia: async () => ({ getTracks: () => [] }) };
  vi.stubGlobal('navigator', { mediaDevices: camera });
  vi.spyOn(HTMLMediaElement.prototype, 'play').mockResolvedValue();
  Object.defineProperties(HTMLVideoElement.prototype, {
    videoWidth: { configurable: true, get: () => 4 },
    videoHeight: { configurable: true, get: () => 2 },
    srcObject: { configurable: true, set: () => {} },
  });
  const onColour = vi.fn();
  const canvas = sampleCanvas({ bagsCarry: 'codes' });
  const legend = [line(1, { code: '412' }), line(2, { code: '98' })];
  render(
    <ScanButton
      canvas={canvas}
      legend={legend}
      bagsCarry="codes"
      act="Count one bag"
      stays
      onColour={onColour}
    />,
  );
  fireEvent.click(screen.getByRole('button', { name: 'Read a code with the camera' }));
  await act(async () => void vi.advanceTimersByTime(130));
  const show = async (code: string) => {
    await sees(code);
    await sees(code);
  };
  const tap = () => fireEvent.click(screen.getByRole('button', { name: 'Count one bag', hidden: true }));
  await show('412');
  // What came forward from nothing was not there to be meant before.
  tap();
  expect(onColour).toHaveBeenLastCalledWith(legend[0]);
  await show('98');
  await show('412');
  tap();
  expect(onColour).toHaveBeenCalledOnce();
  now += TOO_SOON_MS;
  tap();
  expect(onColour).toHaveBeenCalledTimes(2);
});
