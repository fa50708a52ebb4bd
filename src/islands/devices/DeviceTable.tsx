import { useState } from 'react';
import { MOST_NAME_CHARACTERS } from '../../core/devices/device';
import { momentInWords } from '../../core/words/moments';
import type { DeviceView } from '../../server/devices/contract';
import { isComposed } from '../../ui/composing';
import { Check, Pencil } from '../../ui/icons';

const HOW = { code: 'with a code', passphrase: 'with the passphrase' };

/** Devices with when they were last seen, to rename and to sign out. */
export function DeviceTable({
  devices,
  mayManage,
  busy,
  onRename,
  onSignOut,
}: {
  devices: readonly DeviceView[];
  mayManage: boolean;
  busy: boolean;
  onRename: (id: string, name: string) => void;
  onSignOut: (device: DeviceView) => void;
}) {
  const now = new Date();
  return (
    <ul className="divide-y divide-edge border-y border-edge">
      {devices.map((device) => (
        <li key={device.id} className="flex flex-wrap items-center gap-x-6 gap-y-2 py-2.5">
          <div className="min-w-0 grow basis-56">
            <DeviceName
              name={device.name}
              may={mayManage || device.own}
              busy={busy}
              onRename={(name) => onRename(device.id, name)}
            />
            {device.own && <span className="font-semibold text-accent">This device</span>}
          </div>
          <p className="grow basis-64 text-faded">
            {device.lastSeenAt === null
              ? 'Signed out'
              : `Last seen ${momentInWords(new Date(device.lastSeenAt), now)}, at ${device.lastAddress}`}
            <br />
            Joined {momentInWords(new Date(device.joinedAt), now)} {HOW[device.joinedBy]}
          </p>
          {device.lastSeenAt !== null && (mayManage || device.own) && (
            <button type="button" className="button" disabled={busy} onClick={() => onSignOut(device)}>
              Sign out<span className="sr-only"> {device.name}</span>
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

/** A name that can be changed in place. */
export function DeviceName({
  name,
  may,
  busy,
  onRename,
}: {
  name: string;
  may: boolean;
  busy: boolean;
  onRename: (name: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  if (typed === null) {
    return (
      <p className="flex items-center gap-2">
        <strong className="min-w-0 break-words text-lg">{name}</strong>
        {may && (
          <button
            type="button"
            className="button"
            aria-label={`Rename ${name}`}
            title="Rename"
            onClick={() => setTyped(name)}
          >
            <Pencil size={20} aria-hidden />
          </button>
        )}
      </p>
    );
  }
  const end = () => {
    const next = typed.trim();
    if (next !== '' && next !== name) onRename(next);
    setTyped(null);
  };
  return (
    <form
      className="flex gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        end();
      }}
    >
      <input
        className="field"
        aria-label={`New name of ${name}`}
        // biome-ignore lint/a11y/noAutofocus: the field was asked for
        autoFocus
        maxLength={MOST_NAME_CHARACTERS}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => event.key === 'Escape' && !isComposed(event.nativeEvent) && setTyped(null)}
      />
      <button type="submit" className="button" disabled={busy} aria-label="Keep the name">
        <Check size={20} aria-hidden />
      </button>
    </form>
  );
}
