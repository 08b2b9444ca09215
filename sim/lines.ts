/** What every stand-in on a TCP port does: lines in, for each of them a line out. Only on the loopback. */
import { createServer, type Server, type Socket } from 'node:net'

/** As much as anybody sends without ending a line. */
const MOST_HELD = 10_000

/** `answering` is called for each connection: what one sets may stay its own. */
export async function serveLines(
  answering: () => (line: string) => string,
  port = 0,
): Promise<{ server: Server; port: number; close: () => void }> {
  const sockets = new Set<Socket>()
  const server = createServer(socket => {
    sockets.add(socket)
    const answer = answering()
    let held = ''
    socket
      .setEncoding('utf8')
      .on('data', text => {
        held += String(text)
        if (held.length > MOST_HELD) {
          socket.destroy()
          return
        }
        const lines = held.split('\n')
        held = lines.pop()!
        for (const l of lines) if (l.trim() !== '') socket.write(`${answer(l.trim())}\n`)
      })
      .on('error', () => {})
      .on('close', () => sockets.delete(socket))
  })
  await new Promise<void>((done, failed) => {
    server.once('error', failed).listen(port, '127.0.0.1', done)
  })
  return {
    server,
    port: (server.address() as { port: number }).port,
    close: () => {
      for (const s of sockets) s.destroy()
      server.close()
    },
  }
}
