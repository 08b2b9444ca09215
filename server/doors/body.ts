/**
 * The body of a request, cut off at the limit: also one that does not say how long it is, of which no more is read than
 * an entry may have.
 */
import { getHeader, type H3Event } from 'h3'
import { Refusal } from '../records/entry/refusal'

const LARGEST_BYTES = 4_000_000
const LETS_GO_MS = 500

const tooMuch = () =>
  new Refusal({ type: 'about:blank', status: 413, title: 'This is more than one entry can hold (4 MB)' })

export async function bodyOf(event: H3Event): Promise<string> {
  const { req } = event.node
  const cutOff = (): never => {
    // what is still on its way is let go unread for as long as the answer needs to arrive; then the connection ends.
    // Said in a header, Node would end it with the answer, and who still writes would not come to read that
    req.resume()
    event.node.res.once('finish', () => setTimeout(() => req.destroy(), LETS_GO_MS).unref())
    throw tooMuch()
  }
  if (Number(getHeader(event, 'content-length') ?? 0) > LARGEST_BYTES) cutOff()
  const pieces: Buffer[] = []
  let bytes = 0
  return await new Promise<string>((done, failed) => {
    req.on('data', (piece: Buffer) => {
      bytes += piece.length
      if (bytes <= LARGEST_BYTES) {
        pieces.push(piece)
        return
      }
      req.removeAllListeners('data')
      try {
        cutOff()
      } catch (error) {
        failed(error as Error)
      }
    })
    req.once('end', () => done(Buffer.concat(pieces).toString('utf8')))
    req.once('error', failed)
    req.once('aborted', () => failed(new Error('the request was given up')))
  })
}
