-- What questions about runs and weights need: what a spool weighed before and after a run (a weighing like any other),
-- the highest flow that is believed, and the runs of a head in their order.
alter table run_tools add column before_g double precision check (before_g between 1 and 25000);
alter table run_tools add column after_g double precision check (after_g between 1 and 25000);
create or replace view standing_run_tools as select t.* from run_tools t
  where not exists (select from strikes s where s.target = 'run' and s.target_id = t.run_id);
create index run_tools_of_head on run_tools (head_id, ended_at);
alter table settings add column highest_flow_mm3_s double precision not null default 35
  check (highest_flow_mm3_s between 5 and 500);
