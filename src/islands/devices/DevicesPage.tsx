import { useState } from 'react';
import { counted } from '../../core/words/numbers';
import type { DevicesView, DeviceView } from '../../server/devices/contract';
import { Dialog } from '../../ui/Dialog';
import { Notice } from '../../ui/Notice';
import { sendJson } from '../writing/api';
import { useReadAnew } from '../writing/useView';
import { useWrite } from '../writing/useWrite';
import { CodeSlip } from './CodeSlip';
import { DeviceName, DeviceTable } from './DeviceTable';
import { PassphraseForm } from './PassphraseForm';
import { TrustSlip } from './TrustSlip';
import { useCode } from './useCode';

/** The home network: on or off, who comes in, who is in. */
export function DevicesPage({ first }: { first: DevicesView }) {
  const [view, setView] = useState(first);
  const [leaving, setLeaving] = useState<DeviceView | 'all' | null>(null);
  const { busy, fault, act } = useWrite();
  const code = useCode(act);
  const overtakes = useReadAnew<DevicesView>('/api/devices', ['other'], (next) => {
    setView(next);
    // It was used: the device that it was shown for is in.
    if (next.codeSeconds === null && code.left > 0) code.hide();
  });
  const { network, mayManage, devices } = view;
  const change = (method: 'PATCH' | 'DELETE', url: string, body?: object) =>
    act(async () => {
      setView(await sendJson<DevicesView>(method, url, body));
      overtakes();
    });
  const set = (body: object) => change('PATCH', '/api/devices/network', body);
  const signedIn = devices.filter(({ lastSeenAt }) => lastSeenAt !== null);
  const own = devices.find((device) => device.own);
  const wrong = view.wrongTries.reduce((sum, tries) => sum + tries.wrong, 0);

  const signOut = (which: DeviceView | 'all') => {
    setLeaving(null);
    if (which !== 'all' && which.own) {
      void act(async () => {
        await sendJson('POST', '/api/devices/leaving');
        window.location.assign('/join');
      });
    } else void change('DELETE', which === 'all' ? '/api/devices' : `/api/devices/${which.id}`);
  };

  return (
    <div className="flex max-w-4xl flex-col gap-5">
      <section className="slip" aria-label="Home network">
        <div className="flex flex-wrap items-center justify-between gap-4">
          <div className="min-w-0 grow basis-80">
            <p className="text-2xl font-semibold">
              {network.listening
                ? 'Devices of this house can open Oculent'
                : network.on
                  ? 'The home network is on, but nothing can reach it'
                  : 'Only this machine can open Oculent'}
            </p>
            <p className="mt-1 text-faded">
              {network.listening
                ? `The data stay here. A tablet beside the canvas or a phone over the heap of bags sees the same shelf, once it has joined. It is at ${network.urls.join(' and at ')}.`
                : 'Switch the home network on to work at a tablet or a phone too. Only devices that you let in see anything; nothing leaves the house.'}
            </p>
          </div>
          {mayManage && (
            <button
              type="button"
              className={`button ${network.on ? '' : 'button-main'}`}
              disabled={busy}
              onClick={() => {
                code.hide();
                void set({ on: !network.on });
              }}
            >
              {network.on ? 'Switch it off' : 'Switch it on'}
            </button>
          )}
        </div>
        {network.fault && network.on && (
          <div className="mt-3">
            <Notice kind="fault">{network.fault}</Notice>
          </div>
        )}
        {fault && (
          <div className="mt-3">
            <Notice kind="fault">{fault}</Notice>
          </div>
        )}
        {network.listening && mayManage && !code.code && (
          <button type="button" className="button button-main mt-4" disabled={busy} onClick={code.show}>
            Let a device join
          </button>
        )}
        {view.codeWithdrawn && !code.code && (
          <p className="mt-3 font-semibold text-alarm">
            The last code no longer works: there were many wrong tries.
          </p>
        )}
      </section>
      {code.code && <CodeSlip code={code.code} left={code.left} onHide={code.hide} />}
      {code.code && code.left === 0 && (
        <button type="button" className="button button-main self-start" onClick={code.show}>
          Show a new code
        </button>
      )}
      {network.listening && network.fingerprint && (
        <TrustSlip url={network.urls[0]!} fingerprint={network.fingerprint} />
      )}
      {wrong > 0 && (
        <Notice kind="hint">
          {counted(wrong, 'wrong try', 'wrong tries')} to join within the last hour, from{' '}
          {view.wrongTries
            .slice(0, 5)
            .map(({ address, wrong: each }) => `${address} (${each})`)
            .join(', ')}
          {view.wrongTries.length > 5 && ` and ${view.wrongTries.length - 5} more`}. Each makes the next one
          wait longer. If that was nobody of the house, see who is in your network.
        </Notice>
      )}
      <section aria-labelledby="devices-heading">
        <div className="mb-2 flex flex-wrap items-center justify-between gap-3">
          <h2 id="devices-heading" className="text-xl">
            {signedIn.length === 0 ? 'No other device has joined' : counted(signedIn.length, 'device')}
          </h2>
          {signedIn.length > 1 && mayManage && (
            <button type="button" className="button" disabled={busy} onClick={() => setLeaving('all')}>
              Sign all out
            </button>
          )}
        </div>
        {devices.length > 0 && (
          <DeviceTable
            devices={devices}
            mayManage={mayManage}
            busy={busy}
            onRename={(id, name) => void change('PATCH', `/api/devices/${id}`, { name })}
            onSignOut={setLeaving}
          />
        )}
        <div className="mt-3 flex flex-wrap items-center gap-x-3">
          <span>The machine on which Oculent runs is called</span>
          <DeviceName
            name={network.deskName}
            may={mayManage}
            busy={busy}
            onRename={(deskName) => void set({ deskName })}
          />
        </div>
        {!mayManage && (
          <p className="mt-2 text-faded">
            Settings are changed at that machine, or at a device that joined with the passphrase
            {own ? '' : '.'}
            {own && `; “${own.name}” joined with a code.`}
          </p>
        )}
      </section>
      {mayManage && (
        <section aria-labelledby="passphrase-heading">
          <h2 id="passphrase-heading" className="mb-1 text-xl">
            {network.hasPassphrase ? 'A passphrase is set' : 'Join without this screen'}
          </h2>
          <PassphraseForm
            has={network.hasPassphrase}
            busy={busy}
            onSet={(passphrase) => set({ passphrase })}
          />
        </section>
      )}
      {leaving && (
        <Dialog
          title={leaving === 'all' ? 'Sign all devices out' : `Sign out ${leaving.name}`}
          width={32}
          open
          onClose={() => setLeaving(null)}
        >
          <p>
            {leaving === 'all' ? 'None of them' : 'It no longer'} sees the shelf until it joins again. What it
            did stays. Changes that still wait there can be sent when it is back.
          </p>
          <button type="button" className="button button-main mt-4" onClick={() => signOut(leaving)}>
            Sign out
          </button>
        </Dialog>
      )}
    </div>
  );
}
