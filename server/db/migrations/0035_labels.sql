-- The shop's own address, as labels carry it in their codes; empty: they carry tags alone.
alter table settings add column label_address text not null default '' check (length(label_address) <= 120);
