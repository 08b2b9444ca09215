-- What is due and was put off, and the private addresses under which calendars read what is due.
create table snoozes (
  id bigint generated always as identity primary key,
  key text not null check (length(key) between 3 and 400),
  says text not null,
  until timestamptz not null,
  reason text not null check (length(trim(reason)) between 3 and 300),
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (until > occurred_at)
);
create index snoozes_of on snoozes (key, until desc);

create table calendar_feeds (
  id integer generated always as identity primary key,
  name text not null check (length(trim(name)) between 1 and 60),
  -- of the secret in its address, which is kept nowhere
  token_sha256 text not null unique check (token_sha256 ~ '^[0-9a-f]{64}$'),
  revoked boolean not null default false,
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now()
);
