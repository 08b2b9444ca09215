import type { EntryPath } from '#shared/api'
import type { EditableKind } from '#shared/entries/edits'

/** One field of the form that serves all records. */
export interface FormField {
  key: string
  label: string
  kind: 'text' | 'number' | 'select' | 'when' | 'check' | 'photo'
  unit?: string
  hint?: string | ((v: Record<string, unknown>) => string | undefined)
  options?: { value: string | number | null; text: string }[]
  list?: string[]
  when?: (v: Record<string, unknown>) => boolean
  /** What choosing this sets elsewhere. */
  then?: (v: Record<string, unknown>) => void
}

interface RecordForm {
  title: string
  fields: FormField[]
  start: Record<string, unknown>
  says: (v: Record<string, unknown>) => string
  /** What is sent, made of what the form holds, when it is not the same. */
  body?: (v: Record<string, unknown>) => Record<string, unknown>
}
/** A record that a sheet adds: where it goes. */
export interface NewRecord extends RecordForm {
  route: EntryPath
  /** Whose tags go on in sequence, where several of a kind are entered one after the other. */
  another?: 'nozzles' | 'spools'
}
/** A record that a sheet edits: which one, and the version that was seen. */
export interface EditedRecord extends RecordForm {
  edit: { kind: EditableKind; id: number; version: number }
}
export type OpenRecord = NewRecord | EditedRecord
export const isEdit = (r: OpenRecord): r is EditedRecord => 'edit' in r

/** Where the form shows errors: at its fields, also when the entry keeps the record inside `set`. */
export const fieldNames = (fields: readonly FormField[]): string[] => fields.flatMap(f => [f.key, `set.${f.key}`])
