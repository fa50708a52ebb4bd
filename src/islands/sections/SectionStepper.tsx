import { Pager } from '../../ui/Pager';

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
    <Pager what="Section" number={number} count={count} onChange={onChange}>
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
    </Pager>
  );
}
