import { faultInPassphrase, MOST_NAME_CHARACTERS } from '../../core/devices/device';
import { boolean, object, string } from '../http/schema';

const name = string()
  .trim()
  .min(1, 'Give the device a name.')
  .matches(/^\P{C}*$/u, 'A name is one line of ordinary signs.')
  .max(MOST_NAME_CHARACTERS, `A name has at most ${MOST_NAME_CHARACTERS} characters.`);

/** What of the home network shall change; the rest stays. */
export const networkSchema = object({
  on: boolean(),
  deskName: name,
  /** Null takes it away. */
  passphrase: string()
    .nullable()
    .max(1000, 'A passphrase has at most 1000 characters.')
    .test('good', (text, context) => {
      const fault = typeof text === 'string' ? faultInPassphrase(text) : null;
      return fault === null || context.createError({ message: fault });
    }),
});

export const joinSchema = object({
  code: string().max(100).nullable().default(null),
  passphrase: string().max(1000).nullable().default(null),
  name: name.required('Give the device a name.'),
}).test(
  'one',
  'Send the code that the other screen shows, or the passphrase.',
  ({ code, passphrase }) => (code === null) !== (passphrase === null),
);

export const deviceNameSchema = object({ name: name.required('Give the device a name.') });

export interface DeviceView {
  id: string;
  name: string;
  joinedAt: string;
  joinedBy: 'code' | 'passphrase';
  /** Null where it is signed out. */
  lastSeenAt: string | null;
  lastAddress: string | null;
  /** The one that asks. */
  own: boolean;
}

export interface DevicesView {
  /** Whether who asks may change all this: at the machine itself, or at a device that joined with the passphrase. */
  mayManage: boolean;
  network: {
    on: boolean;
    listening: boolean;
    /** Addresses to open on another device, such as `https://192.168.1.20:4471`. */
    urls: string[];
    /** SHA-256 of the authority's certificate, in pairs. */
    fingerprint: string | null;
    fault: string | null;
    hasPassphrase: boolean;
    deskName: string;
  };
  /** Seconds for which the code that was opened last may still be used; null where there is none. */
  codeSeconds: number | null;
  /** The last code was withdrawn after many wrong tries. */
  codeWithdrawn: boolean;
  devices: DeviceView[];
  /** Who tried to come in with a wrong code or passphrase within the last hour. */
  wrongTries: { address: string; wrong: number; secondsAgo: number }[];
}

/** A code that lets one device in. */
export interface CodeView {
  code: string;
  seconds: number;
  /** Where to open it, each with its QR code as SVG. */
  ways: { url: string; qr: string }[];
}
