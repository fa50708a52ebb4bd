import { useEffect, useRef } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import { lacks, shareHere } from '../../core/checkin/lacking';
import { type LineSupply, lackOf, verdictInWords } from '../../core/checkin/supply';
import type { Pot } from '../../core/codes/places';
import { inkOn } from '../../core/colour/contrast';
import { hexToRgb, UNKNOWN_COLOUR } from '../../core/colour/rgb';
import { SymbolGlyph } from '../../ui/SymbolGlyph';

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
  const wall = useRef<HTMLUListElement>(null);
  const litBag = useRef<HTMLButtonElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the bag just counted must come into view, each time
  useEffect(() => {
    if (!wall.current || !litBag.current) return;
    // Only the wall may scroll: the page must keep the field where the eye left it.
    const view = wall.current.getBoundingClientRect();
    const bag = litBag.current.getBoundingClientRect();
    if (bag.top < view.top) wall.current.scrollTop += bag.top - view.top - 8;
    if (bag.bottom > view.bottom) wall.current.scrollTop += bag.bottom - view.bottom + 8;
  }, [lit, supply]);
  const shown = pots.filter(({ line }) => !onlyLacking || lacks(ofLine(supply, line.line)!));
  if (shown.length === 0) return <p className="slip max-w-md">Nothing is missing.</p>;
  return (
    <ul
      ref={wall}
      className="-m-1.5 grid min-h-0 content-start gap-2 overflow-y-auto p-1.5 [grid-template-columns:repeat(auto-fill,minmax(7.4rem,1fr))]"
    >
      {shown.map(({ line }) => {
        const isLit = line.line === lit;
        return (
          <li key={line.line}>
            <button
              type="button"
              ref={isLit ? litBag : null}
              onClick={() => onPick(line)}
              className={`block w-full text-left ${isLit ? 'outline-4 outline-accent' : ''}`}
              aria-current={isLit || undefined}
              title={line.name}
            >
              <Bag line={line} supply={ofLine(supply, line.line)!} last={isLit} />
            </button>
          </li>
        );
      })}
    </ul>
  );
}

/** A bag as it lies there: zip and code above, the drills as far as they fill it, the verdict below. */
function Bag({ line, supply, last }: { line: LegendLine; supply: LineSupply; last: boolean }) {
  const hex = line.hex ?? UNKNOWN_COLOUR;
  const empty = supply.suppliedDrills === 0;
  const share = shareHere(supply);
  const short = lackOf(supply).drills > 0 && !empty;
  return (
    <span className={`block border-[1.5px] bg-paper ${empty ? 'border-dashed border-edge' : 'border-edge'}`}>
      <span className="number flex items-center justify-between border-b-[3px] border-double border-edge px-1.5 leading-[1.6rem]">
        <span className="min-w-0 truncate font-semibold">
          {last && (
            <>
              <span aria-hidden>▸ </span>
              <span className="sr-only">counted last: </span>
            </>
          )}
          <span translate="no">{line.code}</span>
        </span>
        <span className="text-[0.95rem] text-faded">
          {supply.bags}/{supply.expectedBags}
        </span>
      </span>
      <span className="relative flex h-[1.9rem] items-center">
        <span
          className="swatch absolute inset-y-0 left-0"
          style={{ width: `${share * 100}%`, background: hex }}
        />
        <span
          className="swatch number relative flex h-full w-9 items-center justify-center text-xl font-semibold"
          style={{ background: hex, color: inkOn(hexToRgb(hex)) }}
        >
          <SymbolGlyph line={line} />
        </span>
      </span>
      <span
        className={`block truncate px-1.5 text-[0.95rem] leading-[1.6rem] ${short ? 'font-bold text-alarm' : ''}`}
      >
        {verdictInWords(supply.verdict)}
      </span>
    </span>
  );
}
