import type { CoverKind } from '../../core/sections/cover';
import type { LightPad } from '../../core/sections/fit';
import { HANDS } from '../../core/sections/hand';
import type { SectionWish } from '../../core/sections/wish';
import { NumberField } from '../../ui/NumberField';
import { ToggleButton } from '../../ui/ToggleButton';

const COVER_WORDS: [CoverKind, string][] = [
  ['cut', 'Film cut along the borders'],
  ['fold', 'Film folded back'],
  ['sheets', 'Sheets of release paper'],
];

/** How the user works: the hand, the cover, light pad, arm and frame. */
export function WishFields({ wish, onChange }: { wish: SectionWish; onChange: (wish: SectionWish) => void }) {
  const set = (part: Partial<SectionWish>) => onChange({ ...wish, ...part });
  return (
    <div className="flex flex-col gap-3">
      <fieldset className="flex flex-wrap gap-2">
        <legend className="mb-1 font-semibold">You lay with the</legend>
        {HANDS.map((hand) => (
          <ToggleButton key={hand} on={wish.hand === hand} onChange={() => set({ hand })}>
            {hand === 'right' ? 'Right hand' : 'Left hand'}
          </ToggleButton>
        ))}
      </fieldset>
      <label className="block">
        <span className="mb-1 block font-semibold">The cover</span>
        <select
          className="field"
          value={wish.cover}
          onChange={(event) => set({ cover: event.target.value as CoverKind })}
        >
          {COVER_WORDS.map(([kind, words]) => (
            <option key={kind} value={kind}>
              {words}
            </option>
          ))}
        </select>
      </label>
      {wish.cover === 'sheets' && <SheetFields wish={wish} onChange={set} />}
      <details>
        <summary className="min-h-11 cursor-pointer font-semibold">Light pad, arm and frame</summary>
        <div className="mt-2 grid grid-cols-2 gap-3">
          <label className="block">
            <span className="mb-0.5 block text-[0.95rem] leading-tight">Light pad</span>
            <select
              className="field"
              value={wish.pad}
              onChange={(event) => set({ pad: event.target.value as LightPad | 'none' | 'own' })}
            >
              <option value="none">none</option>
              <option value="A4">A4</option>
              <option value="A3">A3</option>
              <option value="A2">A2</option>
              <option value="own">another</option>
            </select>
          </label>
          <LengthOrNone
            words="Your arm reaches, cm"
            mm={wish.reachMm}
            usual={500}
            onChange={(reachMm) => set({ reachMm })}
          />
          {wish.pad === 'own' && (
            <>
              <NumberField
                words="Pad’s long side, mm"
                value={wish.ownPadMm.longMm}
                least={40}
                most={3000}
                unit="mm"
                late
                onChange={(longMm) => set({ ownPadMm: { ...wish.ownPadMm, longMm } })}
              />
              <NumberField
                words="Pad’s short side, mm"
                value={wish.ownPadMm.shortMm}
                least={40}
                most={3000}
                unit="mm"
                late
                onChange={(shortMm) => set({ ownPadMm: { ...wish.ownPadMm, shortMm } })}
              />
            </>
          )}
          <LengthOrNone
            words="Frame or easel shows, cm"
            mm={wish.windowMm}
            usual={300}
            onChange={(windowMm) => set({ windowMm })}
          />
        </div>
      </details>
    </div>
  );
}

/** A length that may not matter. @param usual what stands there when it begins to, mm */
function LengthOrNone({
  words,
  mm,
  usual,
  onChange,
}: {
  words: string;
  mm: number | null;
  usual: number;
  onChange: (mm: number | null) => void;
}) {
  return (
    <div>
      <label className="flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          className="size-5 accent-accent"
          checked={mm !== null}
          onChange={(event) => onChange(event.target.checked ? usual : null)}
        />
        {words}
      </label>
      {mm !== null && (
        <NumberField
          words={words}
          hidden
          value={mm / 10}
          least={5}
          most={300}
          unit="cm"
          late
          onChange={(cm) => onChange(cm * 10)}
        />
      )}
    </div>
  );
}

function SheetFields({
  wish,
  onChange,
}: {
  wish: SectionWish;
  onChange: (part: Partial<SectionWish>) => void;
}) {
  const { sheets, rollMm } = wish;
  return (
    <div className="grid grid-cols-2 gap-3">
      <label className="col-span-2 flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          className="size-5 accent-accent"
          checked={rollMm !== null}
          onChange={(event) => onChange({ rollMm: event.target.checked ? 380 : null })}
        />
        Cut from a roll
      </label>
      {rollMm !== null ? (
        <NumberField
          words="Roll’s width, mm"
          value={rollMm}
          least={40}
          most={2000}
          unit="mm"
          late
          onChange={(width) => onChange({ rollMm: width })}
        />
      ) : (
        <>
          <NumberField
            words="Sheet’s width, mm"
            value={sheets.widthMm}
            least={40}
            most={2000}
            unit="mm"
            late
            onChange={(widthMm) => onChange({ sheets: { ...sheets, widthMm } })}
          />
          <NumberField
            words="Sheet’s height, mm"
            value={sheets.heightMm}
            least={40}
            most={2000}
            unit="mm"
            late
            onChange={(heightMm) => onChange({ sheets: { ...sheets, heightMm } })}
          />
        </>
      )}
      <NumberField
        words="Overlap, mm"
        value={sheets.overlapMm}
        least={0}
        most={30}
        unit="mm"
        late
        onChange={(overlapMm) => onChange({ sheets: { ...sheets, overlapMm } })}
      />
    </div>
  );
}
