import type { ReactNode } from 'react';

/** A form control under its name. */
export function Labelled({ words, children }: { words: string; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the control is the child
    <label className="block">
      <span className="mb-1 block font-semibold">{words}</span>
      {children}
    </label>
  );
}
