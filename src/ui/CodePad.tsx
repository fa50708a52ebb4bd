import { CornerDownLeft, Delete, Grid3x3 } from './icons';

/** Large keys for codes, for a hand that holds a bag. @param letters beside the digits */
export function CodePad({
  letters,
  typed,
  enter,
  onType,
  onEnter,
}: {
  letters: readonly string[];
  typed: string;
  /** What Enter does. */
  enter: string;
  onType: (typed: string) => void;
  onEnter: () => void;
}) {
  const key = (sign: string) => (
    <button
      key={sign}
      type="button"
      className="button number !min-h-14 !text-2xl"
      onClick={() => onType(typed + sign)}
    >
      {sign}
    </button>
  );
  return (
    <fieldset className="grid grid-cols-3 gap-1.5" aria-label="Keypad">
      {['1', '2', '3', '4', '5', '6', '7', '8', '9'].map(key)}
      <button
        type="button"
        className="button !min-h-14"
        aria-label="Delete the last sign"
        disabled={typed === ''}
        onClick={() => onType([...typed].slice(0, -1).join(''))}
      >
        <Delete size={26} aria-hidden />
      </button>
      {key('0')}
      <button type="button" className="button button-main !min-h-14" aria-label={enter} onClick={onEnter}>
        <CornerDownLeft size={26} aria-hidden />
      </button>
      {letters.length > 0 && (
        <div className="col-span-3 grid auto-cols-fr grid-flow-col gap-1.5">{letters.map(key)}</div>
      )}
    </fieldset>
  );
}

/** Shows the keypad or puts it away. */
export function KeypadToggle({ on, onChange }: { on: boolean; onChange: (on: boolean) => void }) {
  return (
    <button
      type="button"
      className={`button !px-2.5 ${on ? 'button-on' : ''}`}
      aria-pressed={on}
      aria-label="Keypad"
      title="Keypad"
      onClick={() => onChange(!on)}
    >
      <Grid3x3 size={20} aria-hidden />
    </button>
  );
}
