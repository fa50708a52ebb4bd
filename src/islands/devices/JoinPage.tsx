import { useEffect, useState } from 'react';
import { MOST_NAME_CHARACTERS, suggestedName } from '../../core/devices/device';
import { readCode } from '../../core/devices/joinCode';
import { AS_TYPED } from '../../ui/asTyped';
import { Labelled } from '../../ui/Labelled';
import { Notice } from '../../ui/Notice';
import { forgetKept } from '../offline/keeping';
import { sendJson } from '../writing/api';
import { useWrite } from '../writing/useWrite';

/** Where a device comes in. @param to address of this machine to go on to */
export function JoinPage({ to }: { to: string }) {
  const [way, setWay] = useState<'code' | 'passphrase'>('code');
  const [typed, setTyped] = useState('');
  const [name, setName] = useState(() => suggestedName(navigator.userAgent));
  const { busy, fault, act } = useWrite();
  useEffect(() => void forgetKept(), []);
  useEffect(() => {
    const code = readCode(decodeURIComponent(window.location.hash.slice(1)));
    if (code === null) return;
    setTyped(code);
    // The code works once; a page that is opened again from the history must not show it.
    window.history.replaceState(null, '', window.location.pathname + window.location.search);
  }, []);
  const join = () =>
    act(async () => {
      await sendJson('POST', '/api/devices/joining', { [way]: typed, name });
      window.location.assign(to);
    });
  return (
    <form
      className="slip mx-auto flex w-full max-w-md flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (!busy && typed !== '') void join();
      }}
    >
      {way === 'code' ? (
        <Labelled words="Code that the other screen shows">
          <input
            className="field number text-2xl uppercase tracking-wider"
            {...AS_TYPED}
            autoComplete="one-time-code"
            autoCapitalize="characters"
            placeholder="····-····"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
        </Labelled>
      ) : (
        <Labelled words="Passphrase">
          <input
            className="field"
            type="password"
            autoComplete="current-password"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
        </Labelled>
      )}
      <Labelled words="What this device is called">
        <input
          className="field"
          maxLength={MOST_NAME_CHARACTERS}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </Labelled>
      {fault && <Notice kind="fault">{fault}</Notice>}
      <button
        type="submit"
        className="button button-main text-lg"
        disabled={busy || typed === '' || name.trim() === ''}
      >
        Join
      </button>
      <button
        type="button"
        className="self-start underline"
        onClick={() => {
          setWay(way === 'code' ? 'passphrase' : 'code');
          setTyped('');
        }}
      >
        {way === 'code' ? 'Join with the passphrase instead' : 'Join with a code instead'}
      </button>
      <p className="text-faded">
        {way === 'code'
          ? 'At the machine on which Oculent runs, open Other devices and choose “Let a device join”.'
          : 'It is set at the machine on which Oculent runs, under Other devices.'}
      </p>
    </form>
  );
}
