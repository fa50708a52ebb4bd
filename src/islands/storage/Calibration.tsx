import { useState } from 'react';
import { counted } from '../../core/words/numbers';
import { Notice } from '../../ui/Notice';

/** "This slot takes eight packets": sets how closely drills lie in this case. */
export function Calibration({
  number,
  disabled,
  fault,
  onCalibrate,
}: {
  number: number | null;
  disabled: boolean;
  fault: string | null;
  onCalibrate: (drills: number) => void;
}) {
  const [packets, setPackets] = useState('8');
  const [packet, setPacket] = useState('200');
  const drills = Number(packets.replace(',', '.')) * Number(packet);
  const field = (words: string, value: string, change: (text: string) => void) => (
    <label className="block">
      <span className="mb-0.5 block text-[0.95rem]">{words}</span>
      <input
        className="field number"
        inputMode="decimal"
        value={value}
        onChange={(event) => change(event.target.value)}
      />
    </label>
  );
  return (
    <details className="slip">
      <summary className="min-h-11 py-1.5 font-semibold">Tried how much goes in?</summary>
      <div className="flex flex-col gap-2.5">
        <p>{disabled ? 'Choose a slot on the tray first.' : `What does slot ${number} take, closed?`}</p>
        <div className="grid grid-cols-2 gap-2">
          {field('Packets', packets, setPackets)}
          {field('Drills in each', packet, setPacket)}
        </div>
        {fault && <Notice kind="fault">{fault}</Notice>}
        <button
          type="button"
          className="button"
          disabled={disabled || !(drills >= 1)}
          onClick={() => onCalibrate(Math.round(drills))}
        >
          {drills >= 1 ? `It takes ${counted(Math.round(drills), 'drill')}` : 'Give both numbers'}
        </button>
      </div>
    </details>
  );
}
