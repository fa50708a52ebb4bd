import type { ReactNode } from 'react';

/** A button that stays pressed. */
export function ToggleButton({
  on,
  onChange,
  children,
}: {
  on: boolean;
  onChange: (on: boolean) => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      className={`button ${on ? 'button-on' : ''}`}
      aria-pressed={on}
      onClick={() => onChange(!on)}
    >
      {children}
    </button>
  );
}
