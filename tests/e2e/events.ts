/** Server-sent events of an address, told one by one; the answer ends the listening. */
export async function listenTo(url: string, heard: (event: string, data: string) => void): Promise<() => void> {
  const end = new AbortController()
  const stream = await fetch(url, { signal: end.signal })
  void read(stream.body!.pipeThrough(new TextDecoderStream()).getReader(), heard).catch(() => {})
  return () => end.abort()
}

async function read(
  reader: ReadableStreamDefaultReader<string>,
  heard: (event: string, data: string) => void,
): Promise<void> {
  let held = ''
  for (;;) {
    const { value, done } = await reader.read()
    if (done) return
    held += value
    const events = held.split('\n\n')
    held = events.pop()!
    for (const e of events) {
      const [event, data] = [/^event: (.*)$/m.exec(e)?.[1], /^data: (.*)$/m.exec(e)?.[1]]
      if (event !== undefined && data) heard(event, data)
    }
  }
}
