import { useState } from 'react';
import type { CodeView } from '../../server/devices/contract';

/** The code that lets one device in, to be read off or scanned. */
export function CodeSlip({ code, left, onHide }: { code: CodeView; left: number; onHide: () => void }) {
  const [at, setAt] = useState(0);
  const way = code.ways[at] ?? code.ways[0]!;
  if (left === 0) {
    return (
      <div className="slip" role="status">
        <p className="text-lg">This code has run out. Show a new one when the device is at hand.</p>
      </div>
    );
  }
  return (
    <section className="slip flex flex-wrap items-center gap-x-8 gap-y-4" aria-label="Code for one device">
      <img
        className="size-56 bg-white"
        src={`data:image/svg+xml;utf8,${encodeURIComponent(way.qr)}`}
        alt={`QR code that opens ${way.url} with the code`}
      />
      <div className="min-w-0 grow basis-72">
        <p>
          With the device’s camera, scan this and open the link. Or open{' '}
          <strong className="inline-block max-w-full break-words">{way.url}</strong> on it and type
        </p>
        <p
          translate="no"
          className="number my-2 text-5xl font-semibold tracking-wider"
          data-testid="join-code"
        >
          {code.code}
        </p>
        <p className="text-faded" role="timer">
          For one device, once; {Math.floor(left / 60)}:{String(left % 60).padStart(2, '0')} left.
        </p>
        {code.ways.length > 1 && (
          <label className="mt-3 block">
            <span className="mb-1 block font-semibold">If that address does not open, try another</span>
            <select className="field" value={at} onChange={(event) => setAt(Number(event.target.value))}>
              {code.ways.map(({ url }, i) => (
                <option key={url} value={i}>
                  {url}
                </option>
              ))}
            </select>
          </label>
        )}
        <button type="button" className="button mt-3" onClick={onHide}>
          Hide the code
        </button>
      </div>
    </section>
  );
}
