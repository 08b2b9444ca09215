/**
 * Everything a shop has in one ZIP of open formats: `tables/` to the last digit, for a new installation to read;
 * `lists/` for people and spreadsheets; `pictures/`; and what all of it means. It is one moment of the shop.
 */
import { configure, TextReader, Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js'
import { sql } from 'drizzle-orm'
import { LIST_NAMES } from '#shared/lists'
import type { Connection, Database } from '../../db/client'
import { AT_ONE_MOMENT, textOfList } from './list'
import { rowsOf } from './rows'
import { archivedTables, PICTURES, type Table } from './tables'

configure({ useWebWorkers: false })

export const ARCHIVE = 'iron nozzle archive'
export interface Manifest {
  is: typeof ARCHIVE
  /** The schema that the rows are of: another version must know all of these to read it. */
  migrations: string[]
  madeAt: string
  /** Rows by table. */
  rows: Record<string, number>
  pictures: number
}
const ABOUT = `Everything a shop of Iron Nozzle has, at one moment.

manifest.json  the version of the schema, and how many rows each table has
schema.json    the tables with their columns and types
tables/        one JSON object a line (JSON Lines, UTF-8): the records as they are stored, nothing rounded or left out;
               times in ISO 8601, temperatures in °C, lengths in mm, masses in g or kg as the names of the columns say
lists/         the same as lists for people, comma-separated, with units in the headings; cells stand as they are, so
               one that begins with = is worked out by a spreadsheet that opens it
pictures/      the pictures of gauges, by the SHA-256 of their bytes

What is struck out is in it with its reason, and so is every edit. Forecasts and other figures that are worked out from
the records are not in it: whoever reads it works them out afresh.

Read it into another installation with: npm run restore FILE
`
const extension = (type: string) => (/^image\/(\w+)$/.exec(type)?.[1] ?? 'bin').replace('jpeg', 'jpg')
export const pictureName = (sha256: string, type: string) => `pictures/${sha256}.${extension(type)}`

const encoder = new TextEncoder()
/** Texts as a stream of bytes, taken as fast as they are wanted. */
function streamOf(texts: AsyncGenerator<string>): ReadableStream<Uint8Array> {
  return new ReadableStream({
    async pull(controller) {
      const { value, done } = await texts.next()
      if (done) controller.close()
      else controller.enqueue(encoder.encode(value))
    },
  })
}
const ofTable = ({ name, columns, key }: Table) => {
  const kept = columns.filter(c => name !== PICTURES.table || c.name !== PICTURES.bytes)
  const order =
    key.length > 0
      ? sql`order by ${sql.join(
          key.map(k => sql.identifier(k)),
          sql`, `,
        )}`
      : sql``
  const list = sql.join(
    kept.map(c => sql.identifier(c.name)),
    sql`, `,
  )
  return sql`select to_jsonb(r)::text line from (select ${list} from ${sql.identifier(name)} ${order}) r`
}

export async function writeArchive(db: Database, write: (bytes: Uint8Array) => Promise<void>): Promise<void> {
  const to = new WritableStream<Uint8Array>({ write })
  const zip = new ZipWriter(to)
  await db.transaction(async tx => {
    const tables = await archivedTables(tx)
    await zip.add('readme.txt', new TextReader(ABOUT))
    await zip.add('schema.json', new TextReader(JSON.stringify(tables, null, 1)))
    const rows: Manifest['rows'] = {}
    for (const table of tables) {
      rows[table.name] = 0
      const lines = async function* () {
        for await (const page of rowsOf(tx, ofTable(table))) {
          rows[table.name]! += page.length
          yield page.map(r => `${String(r.line)}\n`).join('')
        }
      }
      await zip.add(`tables/${table.name}.jsonl`, streamOf(lines()))
    }
    for (const name of LIST_NAMES) {
      const text = textOfList(tx, { name, type: 'csv', escapeFormulae: false })
      await zip.add(`lists/${name}.csv`, streamOf(text))
    }
    const pictures = await addPictures(tx, zip)
    const migrations = await tx.execute<{ name: string }>(sql`select name from migrations order by name`)
    const manifest: Manifest = {
      is: ARCHIVE,
      migrations: migrations.map(m => m.name),
      madeAt: new Date().toISOString(),
      rows,
      pictures,
    }
    await zip.add('manifest.json', new TextReader(JSON.stringify(manifest, null, 1)))
  }, AT_ONE_MOMENT)
  await zip.close()
}

async function addPictures(tx: Connection, zip: ZipWriter<unknown>): Promise<number> {
  const all = await tx.execute<{ id: number; sha256: string; type: string }>(
    sql`select id, sha256, type from blobs order by id`,
  )
  for (const { id, sha256, type } of all) {
    const [blob] = await tx.execute<{ bytes: Buffer }>(sql`select bytes from blobs where id = ${id}`)
    // they are packed already
    await zip.add(pictureName(sha256, type), new Uint8ArrayReader(blob!.bytes), { level: 0 })
  }
  return all.length
}
