import { ChevronLeft, ChevronRight } from 'lucide-react';

/** Which section is on the bench, with the one before and the one after. */
export function SectionStepper({
  number,
  count,
  onChange,
}: {
  number: number;
  count: number;
  onChange: (number: number) => void;
}) {
  const numbers = Array.from({ length: count }, (_, i) => i + 1);
  return (
    <div className="flex items-center gap-2">
      <button
        type="button"
        className="button !px-2.5"
        aria-label="Section before"
        disabled={number <= 1}
        onClick={() => onChange(number - 1)}
      >
        <ChevronLeft size={20} aria-hidden />
      </button>
      <label className="flex items-center gap-2">
        <span className="font-semibold">Section</span>
        <select
          className="field number !w-auto"
          value={number}
          onChange={(event) => onChange(Number(event.target.value))}
        >
          {numbers.map((each) => (
            <option key={each} value={each}>
              {each}
            </option>
          ))}
        </select>
        of {count}
      </label>
      <button
        type="button"
        className="button !px-2.5"
        aria-label="Section after"
        disabled={number >= count}
        onClick={() => onChange(number + 1)}
      >
        <ChevronRight size={20} aria-hidden />
      </button>
    </div>
  );
}
