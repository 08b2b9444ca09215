/**
 * Reads an archive into an empty database: the records as they are, then everything that is worked out from them. What
 * is no archive, is cut short, or is of a newer version is refused with its reason; the database is then thrown away.
 */
import { open } from 'node:fs/promises'
import { Reader, TextWriter, Uint8ArrayWriter, ZipReader, type Entry } from '@zip.js/zip.js'
import { createInterface } from 'node:readline'
import { Readable } from 'node:stream'
import { drizzle } from 'drizzle-orm/postgres-js'
import type postgres from 'postgres'
import { z } from 'zod'
import { DERIVE } from '../../db/derive'
import { migrate, type Migration } from '../../db/migrate'
import { refreshMissingCeilings } from '../printers/ceilings'
import * as schema from '../../db/schema'
import { ARCHIVE, pictureName } from './archive'
import { archivedTables, PICTURES, type Table } from './tables'

/** Why an archive is not read. */
export class ArchiveError extends Error {}

const manifestSchema = z.object({
  is: z.literal(ARCHIVE),
  migrations: z.array(z.string()).min(1),
  madeAt: z.string(),
  rows: z.record(z.string(), z.number()),
  pictures: z.number(),
})
type Manifest = z.output<typeof manifestSchema>

/** A file read where it lies, a part at a time. */
class FileReader extends Reader<string> {
  private file: Awaited<ReturnType<typeof open>> | null = null
  constructor(private readonly path: string) {
    super(path)
  }
  override async init() {
    await super.init?.()
    this.file = await open(this.path)
    this.size = (await this.file.stat()).size
  }
  override async readUint8Array(index: number, length: number): Promise<Uint8Array<ArrayBuffer>> {
    const buffer = new Uint8Array(length)
    const { bytesRead } = await this.file!.read(buffer, 0, length, index)
    return buffer.subarray(0, bytesRead)
  }
  async close() {
    await this.file?.close()
  }
}

type Files = Map<string, Exclude<Entry, { directory: true }>>
async function filesOf(zip: ZipReader<string>): Promise<Files> {
  try {
    const entries = await zip.getEntries()
    return new Map(entries.flatMap(e => (e.directory ? [] : [[e.filename, e] as const])))
  } catch {
    throw new ArchiveError('it is no archive, or it is cut short: its list of contents is missing')
  }
}
async function manifestOf(files: Files): Promise<Manifest> {
  const text = await files.get('manifest.json')?.getData(new TextWriter())
  if (text === undefined) throw new ArchiveError('it is a ZIP of something else: it has no manifest.json')
  const read = manifestSchema.safeParse(jsonOf(text))
  if (!read.success) throw new ArchiveError('it is a ZIP of something else: its manifest.json is not of a shop')
  return read.data
}
function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}

/** Reads it all, and works out what rests on it; answers how many rows each table has. */
export async function unpack(
  client: postgres.Sql,
  path: string,
  migrations: Migration[],
): Promise<{ rows: number; madeAt: string }> {
  const reader = new FileReader(path)
  const zip = new ZipReader(reader)
  try {
    const files = await filesOf(zip)
    const manifest = await manifestOf(files)
    const known = new Set(migrations.map(m => m.name))
    const unknown = manifest.migrations.find(m => !known.has(m))
    if (unknown !== undefined)
      throw new ArchiveError(`it was made by a newer version of Iron Nozzle (${unknown}): upgrade this one first`)
    // the schema that its rows are of, and then what came after it
    await migrate(
      client,
      migrations.filter(m => manifest.migrations.includes(m.name)),
    )
    const db = drizzle(client, { schema, casing: 'snake_case' })
    const tables = await archivedTables(db)
    await emptied(client, tables)
    let rows = 0
    for (const table of tables) rows += await fill(client, table, files, manifest)
    await numbered(client, tables)
    await migrate(client, migrations)
    await client.unsafe(DERIVE)
    await refreshMissingCeilings(db)
    return { rows, madeAt: manifest.madeAt }
  } finally {
    await zip.close().catch(() => {})
    await reader.close()
  }
}

const quoted = (name: string) => `"${name.replaceAll('"', '""')}"`
/** What migrations put into an empty shop goes: the archive has its own. */
async function emptied(client: postgres.Sql, tables: readonly Table[]): Promise<void> {
  for (const { name } of tables) await client.unsafe(`alter table ${quoted(name)} disable trigger user`)
  for (const { name } of [...tables].reverse()) await client.unsafe(`delete from ${quoted(name)}`)
}

const AT_ONCE = 500
async function fill(client: postgres.Sql, table: Table, files: Files, manifest: Manifest): Promise<number> {
  const file = files.get(`tables/${table.name}.jsonl`)
  const wanted = manifest.rows[table.name]
  if (!file || wanted === undefined) throw new ArchiveError(`it is not whole: the table ${table.name} is missing`)
  const columns = table.columns.map(c => quoted(c.name)).join(', ')
  const insert = `insert into ${quoted(table.name)} (${columns}) overriding system value
    select ${columns} from jsonb_populate_recordset(null::${quoted(table.name)}, $1::jsonb)`
  let count = 0
  let some: string[] = []
  const put = async () => {
    if (some.length > 0) await client.unsafe(insert, [`[${some.join()}]`])
    count += some.length
    some = []
  }
  for await (const line of linesOf(file)) {
    some.push(table.name === PICTURES.table ? await withBytes(line, files) : line)
    if (some.length === AT_ONCE) await put()
  }
  await put()
  if (count !== wanted)
    throw new ArchiveError(`it is not whole: ${table.name} has ${count} rows where its manifest says ${wanted}`)
  await client.unsafe(`alter table ${quoted(table.name)} enable trigger user`)
  return count
}

async function* linesOf(file: Exclude<Entry, { directory: true }>): AsyncGenerator<string> {
  const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>()
  let failure: unknown = null
  const unpacking = file.getData(writable).catch((error: unknown) => {
    failure = error
    return writable.abort().catch(() => {})
  })
  try {
    for await (const line of createInterface({ input: Readable.fromWeb(readable as never) }))
      if (line !== '') yield line
    await unpacking
  } catch (error) {
    failure ??= error
  }
  if (failure !== null) throw new ArchiveError(`it is damaged: ${file.filename} cannot be unpacked`, { cause: failure })
}

async function withBytes(line: string, files: Files): Promise<string> {
  const row = JSON.parse(line) as { sha256: string; type: string }
  const name = pictureName(row.sha256, row.type)
  const file = files.get(name)
  if (!file) throw new ArchiveError(`it is not whole: ${name} is missing`)
  const bytes = await file.getData(new Uint8ArrayWriter())
  return JSON.stringify({ ...row, [PICTURES.bytes]: `\\x${Buffer.from(bytes).toString('hex')}` })
}

/** The next record gets the next number. */
async function numbered(client: postgres.Sql, tables: readonly Table[]): Promise<void> {
  for (const { name, columns } of tables)
    if (columns.some(c => c.name === 'id'))
      await client.unsafe(`select setval(s, (select coalesce(max(id), 1) from ${quoted(name)}),
        exists (select from ${quoted(name)}))
        from pg_get_serial_sequence('${quoted(name)}', 'id') s where s is not null`)
}
