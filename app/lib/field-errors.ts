/** The error of a field that holds several values: its own, or that of one of them (`temperaturesC.2`). */
export const errorUnder = (errors: Readonly<Record<string, string>>, field: string): string =>
  Object.entries(errors).find(([f]) => f === field || f.startsWith(`${field}.`))?.[1] ?? ''
