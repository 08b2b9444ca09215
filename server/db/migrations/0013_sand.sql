-- Sand around a part that is annealed, mm on each side; null when it lay free, or when nobody was asked.
alter table anneals add column sand_mm double precision check (sand_mm between 5 and 200);
