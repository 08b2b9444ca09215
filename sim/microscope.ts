/**
 * A stand-in microscope: answers a picture (PNG) over HTTP. `/picture?bore=0.412&nominal=0.4` shows a mouth of that
 * bore, `/picture?every=0.01` a stage scale; both at the same magnification, so that one calibrates the other. What a
 * real one puts on its stage by hand is named in the address here.
 */
import { createServer } from 'node:http'
import { PNG } from 'pngjs'
import { mulberry32 } from '../core/numeric'
import { drawMouth, drawScale, type Drawn, type MouthScene } from './mouth-picture'
import { SCALE } from './mouth-scenes'

/** Its magnification: nobody is told, it is read from the stage scale. */
export const MICROSCOPE_UM_PER_PX = 2.4
const WIDTH = 600
const HEIGHT = 450

/** A mouth under it: a little blurred, lit from one side, the worn ones with a grey band and now and then a chip. */
export function underMicroscope(boreMm: number, nominalMm: number, seed: number): MouthScene {
  const random = mulberry32(seed)
  const between = (low: number, high: number) => low + (high - low) * random()
  const px = (mm: number) => (mm * 1000) / MICROSCOPE_UM_PER_PX
  const worn = Math.max(0, boreMm / nominalMm - 1)
  const oval = 1 + 0.15 * worn * random()
  const r = px(boreMm) / 2
  const blur = between(1.1, 1.8)
  return {
    width: WIDTH,
    height: HEIGHT,
    seed,
    x: WIDTH / 2 + between(-25, 25),
    y: HEIGHT / 2 + between(-20, 20),
    a: r * Math.sqrt(oval),
    b: r / Math.sqrt(oval),
    longDeg: between(0, 180),
    flat: Math.min(px(nominalMm + 0.6) / 2, 0.47 * HEIGHT),
    levels: { mouth: between(0.05, 0.09), flat: between(0.5, 0.65), around: between(0.2, 0.26) },
    blur,
    noise: 0.012,
    turning: 0.04,
    rough: 0.3,
    side: { strength: between(0.1, 0.4), fromDeg: between(0, 360) },
    tone: 'srgb',
    tint: [1, 0.95, 0.86],
    ...(worn > 0.03 && { band: { width: blur * between(6, 11), start: 0.8, middle: 0.6 } }),
    ...(worn > 0.05 &&
      random() < 0.5 && { chips: [{ atDeg: between(0, 360), wideDeg: 16, deep: 5 * blur + 0.06 * r }] }),
  }
}

/** Its stage scale, a bar every so many mm. */
export const stageUnderMicroscope = (everyMm: number, seed: number): Drawn =>
  drawScale({
    ...SCALE,
    width: WIDTH,
    height: HEIGHT,
    x: WIDTH / 2,
    y: HEIGHT / 2,
    seed,
    every: (everyMm * 1000) / MICROSCOPE_UM_PER_PX,
    alongDeg: 4 + (seed % 9),
    tone: 'srgb',
  })

/** A PNG file of a drawn picture. */
export function pngOf({ width, height, rgba }: Drawn): Buffer {
  const png = new PNG({ width, height })
  png.data = Buffer.from(rgba.buffer)
  return PNG.sync.write(png)
}

export async function serveMicroscope(port = 0): Promise<{ port: number; close: () => void }> {
  let shot = 1
  const server = createServer((request, response) => {
    const { searchParams } = new URL(request.url ?? '/', 'http://stage')
    const number = (name: string) => Number(searchParams.get(name) ?? NaN)
    const [bore, nominal, every] = [number('bore'), number('nominal'), number('every')]
    const onStage = bore >= 0.1 && bore <= 1.6 && nominal >= 0.1 && nominal <= 1.4
    if (!onStage && !(every >= 0.005 && every <= 1)) {
      response.writeHead(400).end('bore and nominal, or every, in mm')
      return
    }
    shot++
    const drawn = onStage ? drawMouth(underMicroscope(bore, nominal, shot)) : stageUnderMicroscope(every, shot)
    response.writeHead(200, { 'content-type': 'image/png' }).end(pngOf(drawn))
  })
  await new Promise<void>((done, failed) => {
    server.once('error', failed).listen(port, '127.0.0.1', done)
  })
  return { port: (server.address() as { port: number }).port, close: () => server.close() }
}
