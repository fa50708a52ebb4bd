import { counted, many } from '../../core/words/numbers';
import type { SectionCounts } from './useSectionCounts';

/** Marks that take more than the colour in front: all of a section, of a panel, or what was laid of the colour. */
export function WiderMarks({
  section,
  counts: { colour, leftHere, allHere, leftInSection, allInSection },
  panel,
  onMark,
}: {
  section: number;
  counts: SectionCounts;
  /** The panel that the section lies on, and what is left there; null on an undivided canvas. */
  panel: { number: number; left: number } | null;
  onMark: (what: 'section' | 'panel' | 'colour', kind: 'lay' | 'lift') => void;
}) {
  const laidHere = allHere - leftHere;
  const laidInSection = allInSection - leftInSection;
  return (
    <details className="slip !py-2">
      <summary className="min-h-11 py-2 font-semibold">Mark more at once</summary>
      <div className="flex flex-col gap-2 pb-2">
        {colour && laidHere > 0 && (
          <button type="button" className="button" onClick={() => onMark('colour', 'lift')}>
            Lift the {many(laidHere)} of {colour.code} here
          </button>
        )}
        {leftInSection > 0 && (
          <button type="button" className="button" onClick={() => onMark('section', 'lay')}>
            Lay all {counted(leftInSection, 'drill')} of section {section}
          </button>
        )}
        {laidInSection > 0 && (
          <button type="button" className="button" onClick={() => onMark('section', 'lift')}>
            Lift all {counted(laidInSection, 'drill')} of section {section}
          </button>
        )}
        {panel && panel.left > 0 && (
          <button type="button" className="button" onClick={() => onMark('panel', 'lay')}>
            Lay all {counted(panel.left, 'drill')} left on panel {panel.number}
          </button>
        )}
        <p className="text-[0.95rem] text-faded">Undo takes it back in one step.</p>
      </div>
    </details>
  );
}

const SHARES = [
  [0.25, 'A quarter'],
  [0.5, 'Half'],
  [0.75, 'Three quarters'],
] as const;

/** Without a chart: how much of the section is laid, as the eye judges it. */
export function ShareLaid({ share, onShare }: { share: number; onShare: (share: number) => void }) {
  return (
    <fieldset className="mt-2 flex flex-wrap gap-2" aria-label="How much of the section is laid">
      {SHARES.map(([value, words]) => (
        <button
          key={value}
          type="button"
          className={`button ${Math.abs(share - value) < 0.005 ? 'button-on' : ''}`}
          onClick={() => onShare(value)}
        >
          {words}
        </button>
      ))}
    </fieldset>
  );
}
