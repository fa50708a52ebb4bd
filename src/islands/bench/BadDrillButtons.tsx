import { many } from '../../core/words/numbers';

/** One press for each drill that is thrown away, and one for one too many. */
export function BadDrillButtons({ thrown, onCount }: { thrown: number; onCount: (by: 1 | -1) => void }) {
  return (
    <div className="flex flex-wrap items-center gap-2">
      <button type="button" className="button grow" onClick={() => onCount(1)}>
        One bad drill{thrown > 0 && `: ${many(thrown)} so far`}
      </button>
      {thrown > 0 && (
        <button type="button" className="button" onClick={() => onCount(-1)}>
          One less
        </button>
      )}
    </div>
  );
}
