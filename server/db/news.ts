/**
 * The database itself tells what was saved, by NOTIFY when the transaction commits: one line for each row, with what it
 * is of and whom it names. So no way of saving is left out, and every process hears it.
 */
import type postgres from 'postgres'
import { PROBABLY_PAST } from '#core/schedule'
import { ENDING_TARGETS, LOG_TABLES, LOGS, STRIKE_TARGETS } from '#shared/logs'

export const NEWS = 'iron_nozzle'

/** Records that are edited, and what is derived and shown. */
const RECORDS = [
  'people',
  'settings',
  'printers',
  'heads',
  'parts',
  'hotends',
  'dryers',
  'check_lines',
  'beds',
  'upkeep_tasks',
  'calendar_feeds',
  'pins',
  'stock_items',
  'materials',
  'material_values',
  'cards',
  'practice_sets',
  'nozzle_types',
  'nozzles',
  'spools',
  'setups',
  'reference_probes',
] as const
/** Strikes and endings are told as news of what they are of; crops of pictures come with their gauges. */
const UNTOLD = ['blobs', 'edits', 'import_rows']
const TABLES = [...new Set([...LOG_TABLES, ...RECORDS])].filter(t => !UNTOLD.includes(t))

type Connection = Pick<postgres.Sql, 'unsafe'>

export async function keepNews(connection: Connection): Promise<void> {
  const tables = JSON.stringify(
    Object.fromEntries([...STRIKE_TARGETS, ...ENDING_TARGETS].map(kind => [kind, LOGS[kind].table])),
  )
  const body = `
declare
  told jsonb := to_jsonb(new);
  source text := tg_table_name;
  tool record;
begin
  if source in ('strikes', 'endings') then
    source := '${tables}'::jsonb ->> (told ->> 'target');
    execute format('select to_jsonb(t) from %I t where id = $1', source) into told using (told ->> 'target_id')::bigint;
    if source = 'runs' then
      for tool in select nozzle_id, spool_id, material_id from run_tools where run_id = (told ->> 'id')::bigint loop
        perform pg_notify('${NEWS}', jsonb_strip_nulls(jsonb_build_object('of', 'run_tools', 'nozzle', tool.nozzle_id,
          'spool', tool.spool_id, 'material', tool.material_id))::text);
      end loop;
    end if;
  end if;
  perform pg_notify('${NEWS}', jsonb_strip_nulls(jsonb_build_object('of', source, 'id', told -> 'id',
    'nozzle', told -> 'nozzle_id', 'spool', told -> 'spool_id', 'material', told -> 'material_id',
    'past', (told ->> 'past_chance')::float > ${PROBABLY_PAST}, 'printer',
    coalesce(told -> 'printer_id', (select to_jsonb(h.printer_id) from heads h where h.id = (told ->> 'head_id')::int))
    ))::text);
  return null;
end `
  const [now] = await connection.unsafe<{ prosrc: string }[]>(`select prosrc from pg_proc where proname = 'tell_news'`)
  if (now?.prosrc !== body)
    await connection.unsafe(
      `create or replace function tell_news() returns trigger language plpgsql as $news$${body}$news$`,
    )
  const there = await connection.unsafe<{ name: string }[]>(
    `select relname name from pg_trigger t join pg_class c on c.oid = t.tgrelid where tgname = 'news'`,
  )
  const known = await connection.unsafe<{ name: string }[]>(`select relname name from pg_class where relkind = 'r'`)
  // a database on its way up from an older version has not all of them yet
  const missing = TABLES.filter(t => known.some(r => r.name === t) && !there.some(r => r.name === t))
  for (const table of missing)
    await connection.unsafe(
      `create trigger news after insert or update on ${table} for each row execute function tell_news()`,
    )
  // a forecast that was worked out anew; that it was marked to be is nobody's news
  if (!there.some(r => r.name === 'forecasts'))
    await connection.unsafe(`
      create trigger news after insert on forecasts for each row execute function tell_news();
      create trigger news_again after update on forecasts for each row
        when (old.computed_at is distinct from new.computed_at) execute function tell_news()`)
}
