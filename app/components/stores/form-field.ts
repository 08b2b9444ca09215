import type { EntryPath } from '#shared/api'
import type { EditableKind } from '#shared/entries/edits'

/** One field of the form that serves all records. */
export interface FormField {
  key: string
  label: string
  kind: 'text' | 'number' | 'select' | 'when' | 'check'
  unit?: string
  hint?: string
  options?: { value: string | number | null; text: string }[]
  list?: string[]
  when?: (v: Record<string, unknown>) => boolean
  /** What choosing this sets elsewhere. */
  then?: (v: Record<string, unknown>) => void
}

/** A record that a sheet adds or edits. */
export interface OpenRecord {
  title: string
  fields: FormField[]
  start: Record<string, unknown>
  says: (v: Record<string, unknown>) => string
  /** Where a new record goes, or which one is edited. */
  route?: EntryPath
  /** The entry made of what the form holds, when it is not the same. */
  body?: (v: Record<string, unknown>) => Record<string, unknown>
  edit?: { kind: EditableKind; id: number; version: number }
}
