import { useEffect, useRef } from 'react';
import { Dialog } from '../../ui/Dialog';
import { Keyboard } from '../../ui/icons';
import { KEYS } from './keys';

/** The one list of keys, opened with `?`. */
export function KeyboardHelp() {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const inField = event.target instanceof HTMLElement && event.target.closest('input, textarea, select');
      if (event.key === '?' && !inField) dialog.current?.showModal();
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
  return (
    <>
      <button type="button" className="button" onClick={() => dialog.current?.showModal()}>
        <Keyboard size={20} aria-hidden />
        <span className="max-md:sr-only">Keys</span>
      </button>
      <Dialog title="Keys" width={44} handle={dialog}>
        <p className="mb-3">
          <a className="underline" href="/glossary">
            Words of the trade
          </a>{' '}
          explains pots, runs, confetti and the like.
        </p>
        <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
          {KEYS.map(({ place, keys }) => (
            <section key={place}>
              <h3 className="mb-1 font-semibold text-faded">{place}</h3>
              <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
                {keys.map(([key, does]) => (
                  <div key={key} className="contents">
                    <dt className="number">{key}</dt>
                    <dd>{does}</dd>
                  </div>
                ))}
              </dl>
            </section>
          ))}
        </div>
      </Dialog>
    </>
  );
}
