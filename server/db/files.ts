/** The migrations as files, for scripts and tests; the built server carries them as assets instead. */
import { readdirSync, readFileSync } from 'node:fs'
import type { Migration } from './migrate'

export function migrationFiles(): Migration[] {
  const folder = new URL('./migrations/', import.meta.url)
  return readdirSync(folder)
    .filter(f => f.endsWith('.sql'))
    .map(name => ({ name, sql: readFileSync(new URL(name, folder), 'utf8') }))
}
