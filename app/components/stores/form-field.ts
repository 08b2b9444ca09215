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
