/** Hands a file to the person: made in the browser, so that nothing leaves it. */
export function saveFile(name: string, type: string, text: string): void {
  const a = document.createElement('a')
  a.href = URL.createObjectURL(new Blob([text], { type }))
  a.download = name
  a.click()
  setTimeout(() => URL.revokeObjectURL(a.href), 10_000)
}
