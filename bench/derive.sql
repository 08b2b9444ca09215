-- What the triggers would have derived row by row, by their own functions.
select spools_changed(array(select id from spools));
select nozzles_stand(array(select id from nozzles));
select parts_stand(array(select id from parts));
select hotends_stand(array(select id from hotends));
select days_changed(array(select id from runs));
analyze;
