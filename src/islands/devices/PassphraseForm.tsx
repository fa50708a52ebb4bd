import { useState } from 'react';
import { faultInPassphrase } from '../../core/devices/device';
import { Labelled } from '../../ui/Labelled';

/** Sets, changes or takes away the passphrase by which a device can join without anybody at this machine. */
export function PassphraseForm({
  has,
  busy,
  onSet,
}: {
  has: boolean;
  busy: boolean;
  /** @param passphrase null takes it away */
  onSet: (passphrase: string | null) => Promise<boolean>;
}) {
  const [typed, setTyped] = useState('');
  const fault = typed === '' ? null : faultInPassphrase(typed);
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (typed !== '' && !fault) void onSet(typed).then((kept) => kept && setTyped(''));
      }}
    >
      <div className="grow basis-64">
        <Labelled words={has ? 'Another passphrase' : 'Passphrase'}>
          <input
            className="field"
            type="password"
            autoComplete="new-password"
            value={typed}
            aria-describedby="passphrase-words"
            onChange={(event) => setTyped(event.target.value)}
          />
        </Labelled>
      </div>
      <button type="submit" className="button" disabled={busy || typed === '' || fault !== null}>
        {has ? 'Change it' : 'Set it'}
      </button>
      {has && (
        <button type="button" className="button" disabled={busy} onClick={() => void onSet(null)}>
          Delete it
        </button>
      )}
      <p
        id="passphrase-words"
        className={`basis-full ${fault ? 'text-alarm' : 'text-faded'}`}
        aria-live="polite"
      >
        {fault ??
          'Who knows it can join at any time and change these settings. Only a hash of it is kept; nobody can read it here.'}
      </p>
    </form>
  );
}
