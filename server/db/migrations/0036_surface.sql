-- What a run was printed on, sheet and adhesive as they are written; null where nobody said.
alter table runs add column surface text check (length(trim(surface)) between 1 and 80);
-- A view keeps the columns it was made with.
create or replace view standing_runs as select r.* from runs r
  where not exists (select from strikes s where s.target = 'run' and s.target_id = r.id);
