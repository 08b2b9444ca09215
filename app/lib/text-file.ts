/** The text of a file that somebody chose, whichever way it was written; what is no text is said. */
export interface TextRead {
  text: string
  /** Why nothing was read; null where it was. */
  problem: string | null
}
const MOST_BYTES = 20_000_000
/** Byte order marks, RFC 2781. */
const MARKS = [
  { first: 0xff, second: 0xfe, is: 'utf-16le' },
  { first: 0xfe, second: 0xff, is: 'utf-16be' },
] as const
const refused = (problem: string): TextRead => ({ text: '', problem })

/** UTF-8 or UTF-16 by its mark, UTF-8 without one, else the letters of western Europe (Windows-1252). */
export async function textOfFile(file: File): Promise<TextRead> {
  if (file.size > MOST_BYTES)
    return refused(`${file.name} has ${(file.size / 1e6).toFixed(0)} MB: a table is read up to ${MOST_BYTES / 1e6} MB.`)
  const bytes = new Uint8Array(await file.arrayBuffer())
  if (bytes[0] === 0x50 && bytes[1] === 0x4b)
    return refused(`${file.name} is a workbook: copy its cells and paste them here, or save it as CSV.`)
  const mark = MARKS.find(m => bytes[0] === m.first && bytes[1] === m.second)?.is ?? null
  if (mark === null && bytes.subarray(0, 4096).includes(0))
    return refused(`${file.name} is no text: save the table as CSV, or paste it.`)
  try {
    return { text: new TextDecoder(mark ?? 'utf-8', { fatal: true }).decode(bytes), problem: null }
  } catch {
    return { text: new TextDecoder('windows-1252').decode(bytes), problem: null }
  }
}
