/**
 * A stand-in balance: `P 812.4` puts a mass on it, `S` answers what it reads, in grams, to a tenth with a little noise.
 */
import { createServer } from 'node:net'

export async function serveBalance(
  port = 0,
  noise: () => number = Math.random,
): Promise<{ port: number; close: () => void }> {
  let onIt = 0
  const sockets = new Set<import('node:net').Socket>()
  const server = createServer(socket => {
    sockets.add(socket)
    socket
      .setEncoding('utf8')
      .on('data', text => {
        for (const line of String(text).split('\n')) {
          const put = /^P (\d+(?:\.\d+)?)$/.exec(line.trim())
          if (put) {
            onIt = Number(put[1])
            socket.write('ok\n')
          } else if (line.trim() === 'S')
            socket.write(`${(onIt + (onIt > 0 ? (noise() - 0.5) * 0.4 : 0)).toFixed(1)} g\n`)
          else if (line.trim() !== '') socket.write('error\n')
        }
      })
      .on('error', () => {})
      .on('close', () => sockets.delete(socket))
  })
  await new Promise<void>((done, failed) => {
    server.once('error', failed).listen(port, '127.0.0.1', done)
  })
  return {
    port: (server.address() as { port: number }).port,
    close: () => {
      for (const s of sockets) s.destroy()
      server.close()
    },
  }
}
