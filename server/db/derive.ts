/** What triggers derive row by row, made anew from all rows by their own functions: where rows were laid in bulk. */
export const DERIVE = `
  select spools_changed(array(select id from spools));
  select nozzles_stand(array(select id from nozzles));
  select parts_stand(array(select id from parts));
  select hotends_stand(array(select id from hotends));
  select stock_stand(array(select id from stock_items));
  select days_changed(array(select id from runs));
  analyze;`
