import type { Device } from '../core/devices/device';
import { USUAL_DESK_NAME } from '../core/devices/device';
import { one, type Queries } from './engine/database';

/** How the home network is set. */
export interface HomeNetworkSetting {
  on: boolean;
  /** The hash by which a passphrase is known; null where there is none. */
  passphrase: string | null;
  deskName: string;
}

export async function homeNetworkSetting(queries: Queries): Promise<HomeNetworkSetting> {
  const row = await one<HomeNetworkSetting>(
    queries,
    `select turned_on as "on", passphrase, desk_name as "deskName" from home_network`,
  );
  return row ?? { on: false, passphrase: null, deskName: USUAL_DESK_NAME };
}

export async function putHomeNetworkSetting(queries: Queries, setting: HomeNetworkSetting): Promise<void> {
  await queries.query(
    `insert into home_network (only_row, turned_on, passphrase, desk_name) values (true, $1, $2, $3)
     on conflict (only_row) do update set turned_on = excluded.turned_on, passphrase = excluded.passphrase,
       desk_name = excluded.desk_name`,
    [setting.on, setting.passphrase, setting.deskName],
  );
}

/** How a device came in. */
export type JoinedBy = 'code' | 'passphrase';

export interface NewDevice extends Device {
  joinedBy: JoinedBy;
  tokenHash: string;
  address: string;
  at: string;
}

/** Lets a device in; one that is known by its id comes back. */
export async function addDevice(queries: Queries, device: NewDevice): Promise<void> {
  await queries.query(
    `insert into device (id, name, joined_at, joined_by) values ($1, $2, $3, $4)
     on conflict (id) do update set joined_at = excluded.joined_at, joined_by = excluded.joined_by`,
    [device.id, device.name, device.at, device.joinedBy],
  );
  await queries.query(
    `insert into device_session (token_hash, device_id, last_seen_at, last_address, renewed_at)
     values ($1, $2, $3, $4, $3)`,
    [device.tokenHash, device.id, device.at, device.address],
  );
}

/** What is known of who shows a token. */
export interface DeviceSession extends Device {
  joinedBy: JoinedBy;
  lastSeenAt: string;
  renewedAt: string;
}

export function sessionOf(queries: Queries, tokenHash: string): Promise<DeviceSession | null> {
  return one<DeviceSession>(
    queries,
    `select d.id, d.name, d.joined_by as "joinedBy", s.last_seen_at as "lastSeenAt", s.renewed_at as "renewedAt"
     from device_session s join device d on d.id = s.device_id where s.token_hash = $1`,
    [tokenHash],
  );
}

/** Notes that a device was here; a clock that was wrong for a while does not make it older. @param renewed whether its cookie was given out anew */
export async function seeSession(
  queries: Queries,
  tokenHash: string,
  at: string,
  address: string,
  renewed: boolean,
): Promise<void> {
  await queries.query(
    `update device_session set last_seen_at = greatest(last_seen_at, $2), last_address = $3,
       renewed_at = case when $4::boolean then $2 else renewed_at end where token_hash = $1`,
    [tokenHash, at, address, renewed],
  );
}

/** Ends sessions. @param deviceId of one device; null for all */
export async function endSessions(queries: Queries, deviceId: string | null): Promise<void> {
  await queries.query('delete from device_session where $1::uuid is null or device_id = $1', [deviceId]);
}

export async function endSession(queries: Queries, tokenHash: string): Promise<void> {
  await queries.query('delete from device_session where token_hash = $1', [tokenHash]);
}

/** A device as the list shows it. */
export interface KnownDevice extends Device {
  joinedAt: string;
  joinedBy: JoinedBy;
  /** Null where it is signed out. */
  lastSeenAt: string | null;
  lastAddress: string | null;
}

/** All devices, those signed in first, the newest seen first. */
export function devicesOf(queries: Queries): Promise<KnownDevice[]> {
  return queries.query<KnownDevice>(
    `select d.id, d.name, d.joined_at as "joinedAt", d.joined_by as "joinedBy", s.last_seen_at as "lastSeenAt",
            s.last_address as "lastAddress"
     from device d left join device_session s on s.device_id = d.id
     order by s.last_seen_at desc nulls last, d.joined_at desc limit 500`,
  );
}

/** @returns whether there is such a device */
export async function renameDevice(queries: Queries, id: string, name: string): Promise<boolean> {
  return (
    (await queries.query('update device set name = $2 where id = $1 returning id', [id, name])).length > 0
  );
}

/** Notes which device a screen belongs to; the first that names it has it. */
export async function claimScreen(queries: Queries, screenId: string, deviceId: string): Promise<void> {
  await queries.query('insert into screen (id, device_id) values ($1, $2) on conflict (id) do nothing', [
    screenId,
    deviceId,
  ]);
}
