-- Derived rows carry the version of the model they were worked out by: one of another version is stale.
-- What was stored before this column came is version 1.
alter table forecasts add column model integer not null default 1;
alter table forecasts alter column model drop default;
-- The sister term has a version of its own: terms of all nozzles are renewed before their forecasts.
alter table forecasts add column term_model integer not null default 1;
alter table forecasts alter column term_model drop default;
alter table stack_ceilings add column model integer not null default 1;
alter table stack_ceilings alter column model drop default;
