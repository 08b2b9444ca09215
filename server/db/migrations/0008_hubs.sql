-- The words for a spool's hub are those of core/drying/hubs.ts; what was typed otherwise is kept in the note.
update spools set hub = case lower(trim(hub))
  when 'pc' then 'polycarbonate' when 'ps' then 'polystyrene' when 'pp' then 'polypropylene'
  when 'card' then 'cardboard' when 'steel' then 'metal' when 'aluminium' then 'metal'
  when 'cardboard' then 'cardboard' when 'polystyrene' then 'polystyrene' when 'abs' then 'ABS'
  when 'polypropylene' then 'polypropylene' when 'polycarbonate' then 'polycarbonate'
  when 'high-temperature' then 'high-temperature' when 'metal' then 'metal'
  else hub end;
update spools set note = trim(both ' ' from note || ' hub: ' || hub), hub = ''
  where hub not in ('', 'cardboard', 'polystyrene', 'ABS', 'polypropylene', 'polycarbonate', 'high-temperature', 'metal');
