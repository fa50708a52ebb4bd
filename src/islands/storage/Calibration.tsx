import { useState } from 'react';
import { counted } from '../../core/words/numbers';
import { Notice } from '../../ui/Notice';
import { NumberField } from '../../ui/NumberField';

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
  const [packets, setBags] = useState(8);
  const [packet, setPacket] = useState(200);
  const drills = Math.round(packets * packet);
  const field = (words: string, value: number, most: number, change: (value: number) => void) => (
    <NumberField words={words} value={value} least={0} most={most} onChange={change} />
  );
  return (
    <details className="slip">
      <summary className="min-h-11 py-1.5 font-semibold">Have you tried how much goes in?</summary>
      <div className="flex flex-col gap-2.5">
        <p>{disabled ? 'Choose a slot on the tray first.' : `What does slot ${number} take, closed?`}</p>
        <div className="grid grid-cols-2 gap-2">
          {field('Bags', packets, 1000, setBags)}
          {field('Drills in each', packet, 100_000, setPacket)}
        </div>
        {fault && <Notice kind="fault">{fault}</Notice>}
        <button
          type="button"
          className="button"
          disabled={disabled || !(drills >= 1)}
          onClick={() => onCalibrate(drills)}
        >
          {drills >= 1 ? `It takes ${counted(drills, 'drill')}` : 'Give both numbers'}
        </button>
      </div>
    </details>
  );
}
