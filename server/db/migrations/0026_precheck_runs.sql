-- Which run a check was made for is asked for every check that is listed; without it all runs were read for each.
create index runs_of_precheck on runs (precheck_id) where precheck_id is not null;
