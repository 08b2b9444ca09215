-- The words for what is printed on are those of core/limits/surfaces.ts; what was typed otherwise is kept in the note.
create function pg_temp.word_in(words text[], typed text) returns text language sql as $$
  select w from unnest(words) w where lower(w) = lower(trim(typed)) limit 1
$$;
create function pg_temp.sheet(typed text) returns text language sql as $$
  select pg_temp.word_in('{PEI,epoxy-glass laminate,glass,polycarbonate,polypropylene,polyimide,carbon fibre plate,
    steel,aluminium}'::text[], typed)
$$;
create function pg_temp.surface(typed text) returns text language sql as $$
  select case
    when pg_temp.sheet(split_part(typed, '+', 1)) is null or split_part(typed, '+', 3) <> '' then null
    when position('+' in typed) = 0 then pg_temp.sheet(typed)
    else pg_temp.sheet(split_part(typed, '+', 1)) || ' + ' ||
      pg_temp.word_in('{glue stick,adhesive,release agent,superglue}'::text[], split_part(typed, '+', 2))
  end
$$;
update practice_sets p set
  surfaces = coalesce((select array_agg(pg_temp.surface(s) order by i)
    from unnest(p.surfaces) with ordinality t(s, i) where pg_temp.surface(s) is not null), '{}'),
  note = trim(both ' ' from p.note || coalesce((select ' holds on: ' || string_agg(s, ', ' order by i)
    from unnest(p.surfaces) with ordinality t(s, i) where pg_temp.surface(s) is null), ''));
update parts set details = details - 'surface', note = trim(both ' ' from note || ' surface: ' || (details->>'surface'))
  where details ? 'surface' and pg_temp.sheet(details->>'surface') is null;
update parts set details = jsonb_set(details, '{surface}', to_jsonb(pg_temp.sheet(details->>'surface')))
  where details ? 'surface';
