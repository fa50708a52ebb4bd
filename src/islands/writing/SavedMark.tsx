import { counted } from '../../core/words/numbers';
import { Check, CloudOff, LoaderCircle } from '../../ui/icons';
import { useOutbox } from './useWrite';

/** Whether what was done is saved: on every page in the same place, in the same words. */
export function SavedMark() {
  const { waiting, aside, away } = useOutbox();
  const [Mark, words] =
    aside.length > 0
      ? [CloudOff, `${counted(aside.length, 'change')} not saved`]
      : waiting === 0
        ? [Check, 'All saved']
        : away
          ? [CloudOff, `${counted(waiting, 'change')} to save`]
          : [LoaderCircle, 'Saving…'];
  return (
    <p className="flex min-h-11 items-center gap-1.5 px-1 text-faded" data-testid="saved-mark">
      <Mark size={20} aria-hidden />
      <span className="max-lg:sr-only">{words}</span>
    </p>
  );
}
