import { useEffect, useRef } from 'react';
import { type LegendLine, symbolOrKey } from '../../core/canvas/legend';
import { type LineSupply, verdictInWords } from '../../core/checkin/supply';
import { inkOn } from '../../core/colour/contrast';
import { hexToRgb, UNKNOWN_COLOUR } from '../../core/colour/rgb';
import type { Pot } from '../../core/kitup/pots';

/** Whether a colour still lacks a bag or drills. */
export function lacks(supply: LineSupply): boolean {
  return (
    supply.verdict.kind === 'missing' || supply.verdict.kind === 'short' || supply.bags < supply.expectedBags
  );
}

/** Every colour as a bag in code order, filled as far as its drills are here. Picking one puts its code in the field. */
export function BagWall({
  pots,
  supply,
  lit,
  onlyLacking,
  onPick,
}: {
  pots: Pot[];
  supply: LineSupply[];
  lit: number | null;
  onlyLacking: boolean;
  onPick: (line: LegendLine) => void;
}) {
  const litBag = useRef<HTMLButtonElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the bag just counted must come into view, each time
  useEffect(() => {
    litBag.current?.scrollIntoView({ block: 'nearest' });
  }, [lit, supply]);
  const shown = pots.filter(({ line }) => !onlyLacking || lacks(supply[line.line - 1]!));
  if (shown.length === 0) return <p className="slip max-w-md">Nothing is lacking.</p>;
  return (
    <ul className="grid gap-2 [grid-template-columns:repeat(auto-fill,minmax(6.4rem,1fr))]">
      {shown.map(({ line }) => {
        const isLit = line.line === lit;
        return (
          <li key={line.line}>
            <button
              type="button"
              ref={isLit ? litBag : null}
              onClick={() => onPick(line)}
              className={`block w-full text-left ${isLit ? 'bg-lamp outline-4 outline-lamp' : ''}`}
              aria-current={isLit || undefined}
              title={line.name}
            >
              <Bag line={line} supply={supply[line.line - 1]!} />
            </button>
          </li>
        );
      })}
    </ul>
  );
}

function Bag({ line, supply }: { line: LegendLine; supply: LineSupply }) {
  const hex = line.hex ?? UNKNOWN_COLOUR;
  const empty = supply.suppliedDrills === 0;
  const full = supply.neededDrills === 0 ? 1 : Math.min(1, supply.suppliedDrills / supply.neededDrills);
  const alarm = supply.verdict.kind === 'missing' || supply.verdict.kind === 'short';
  return (
    <span
      className={`relative block h-[5.7rem] overflow-hidden border-[1.5px] bg-paper ${empty ? 'border-dashed border-edge' : 'border-edge'}`}
    >
      <span className="absolute inset-x-0 top-0 block h-[0.35rem] border-b border-edge bg-cloth" />
      <span
        className="absolute inset-x-0 bottom-[1.55rem] block border-t border-edge/40"
        style={{ height: `${full * 3.7}rem`, background: hex }}
      />
      <span
        className="number absolute top-[0.75rem] left-1.5 flex size-9 items-center justify-center border border-edge text-xl font-semibold"
        style={{ background: hex, color: inkOn(hexToRgb(hex)) }}
      >
        {symbolOrKey(line)}
      </span>
      <span className="number absolute top-[0.75rem] right-1.5 bg-paper px-1 text-[1.02rem] font-semibold">
        {line.code}
      </span>
      <span className="number absolute top-[2.3rem] right-1.5 bg-paper px-1 text-[0.9rem]">
        {supply.bags}/{supply.expectedBags}
      </span>
      <span
        className={`absolute inset-x-0 bottom-0 block truncate bg-paper px-1.5 text-[0.95rem] leading-[1.55rem] ${alarm ? 'font-bold text-alarm' : 'text-ink'}`}
      >
        {verdictInWords(supply.verdict)}
      </span>
    </span>
  );
}
