-- Printers and people that are here no longer: they leave the screens, what they did stays.
alter table printers add column out_of_use boolean not null default false;
alter table people add column out_of_use boolean not null default false;
alter table people add column version integer not null default 1 check (version > 0);
