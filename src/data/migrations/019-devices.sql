-- Devices of the house. One that signed out stays with its name, because entries of the ledgers are its.
create table device (
  id uuid primary key,
  name text not null,
  joined_at timestamptz not null,
  joined_by text not null check (joined_by in ('code', 'passphrase'))
);
-- What lets a device in: only the SHA-256 of its token is kept. `renewed_at` is when its cookie was last given out.
create table device_session (
  token_hash text primary key,
  device_id uuid not null references device (id) on delete cascade,
  last_seen_at timestamptz not null,
  last_address text not null,
  renewed_at timestamptz not null
);
create index device_session_by_device on device_session (device_id);

-- Which device a screen (a tab) belongs to; none for screens of the machine itself.
create table screen (
  id uuid primary key,
  device_id uuid not null references device (id) on delete cascade
);
create index screen_by_device on screen (device_id);
alter table sitting add column screen_id uuid;

-- One row at most. `passphrase` is a scrypt hash with its salt and costs.
create table home_network (
  only_row boolean primary key default true check (only_row),
  turned_on boolean not null default false,
  passphrase text,
  desk_name text not null default 'Desk'
);
