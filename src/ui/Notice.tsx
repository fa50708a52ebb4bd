import type { ReactNode } from 'react';
import { Info, TriangleAlert } from './icons';

/** A fault or a hint in words, with a mark beside it; faults are read out. */
export function Notice({ kind, children }: { kind: 'fault' | 'hint'; children: ReactNode }) {
  const fault = kind === 'fault';
  const Mark = fault ? TriangleAlert : Info;
  return (
    <div
      role={fault ? 'alert' : 'status'}
      className={`flex items-start gap-2.5 border-l-4 bg-paper px-3 py-2.5 ${fault ? 'border-alarm' : 'border-edge'}`}
    >
      <Mark size={20} aria-hidden className={`mt-0.5 shrink-0 ${fault ? 'text-alarm' : 'text-faded'}`} />
      <div className="min-w-0">{children}</div>
    </div>
  );
}
