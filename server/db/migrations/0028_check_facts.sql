-- A check keeps which tool it was of and what will be set by hand, so that its run need not be told again.
alter table prechecks add column tool integer not null default 0;
alter table prechecks add column set_c jsonb;
