/** What the commands have in common: how they give up, and how they read a number. */
export function fail(message: string): never {
  console.error(message)
  process.exit(2)
}

export function numberOf(name: string, text: string): number {
  const v = Number(text)
  if (text.trim() === '' || !Number.isFinite(v)) fail(`${name} ${text}: a number is needed`)
  return v
}
