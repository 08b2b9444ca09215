/**
 * The picture gauge: 300 drawn pictures (how many true bores lie within 2u, and the median of |error|/u), and one of 12
 * megapixels from decoded pixels, against a general vision library's plain pipeline on the same pixels in the same run:
 * blur, edges by Canny, contours, the direct ellipse fit of the largest.
 */
import { createRequire } from 'node:module'
import { measureBore } from '#core/imaging'
import { drawMouth } from '../sim/mouth-picture'
import { FAULTS, mouthScene } from '../sim/mouth-scenes'

type Library = typeof import('@techstark/opencv-js')
const loading = createRequire(import.meta.url)('@techstark/opencv-js') as { then: (f: (m: Library) => void) => void }

const PICTURES = Number(process.argv[2] ?? 300)
const median = (v: number[]) => [...v].sort((a, b) => a - b)[v.length >> 1]!

function accuracy(): void {
  const ratios: number[] = []
  const px: number[] = []
  let refused = 0
  for (let k = 0; k < PICTURES; k++) {
    const s = mouthScene(FAULTS[k % FAULTS.length]!, 1000 + k, 400)
    const q = { umPerPx: s.umPerPx, uUmPerPx: 0, tone: s.tone, isToneStated: true }
    const b = measureBore(drawMouth(s), q)
    if ('refused' in b) {
      refused++
      continue
    }
    const off = (b.boreMm * 1000) / s.umPerPx - s.across
    px.push(Math.abs(off))
    ratios.push(Math.abs((off * s.umPerPx) / 1000 / b.uMm))
  }
  const within = ratios.filter(r => r < 2).length / PICTURES
  console.log(
    `picture: ${PICTURES} drawn, ${(100 * within).toFixed(1)} % within 2u (at least 90), ` +
      `median |error|/u ${median(ratios).toFixed(2)} (0.25 to 1.2), median error ${median(px).toFixed(3)} px, ` +
      `${refused} refused`,
  )
}

function speed(cv: Library): void {
  const s = { ...mouthScene('clean', 3, 4000), blur: 3 }
  const p = drawMouth(s)
  const ours = () => measureBore(p, { umPerPx: 0.3, uUmPerPx: 0, tone: s.tone, isToneStated: true })
  const plain = () => {
    const image = cv.matFromImageData({ data: p.rgba, width: p.width, height: p.height } as never)
    const grey = new cv.Mat()
    cv.cvtColor(image, grey, cv.COLOR_RGBA2GRAY)
    cv.GaussianBlur(grey, grey, new cv.Size(5, 5), 0)
    const edges = new cv.Mat()
    cv.Canny(grey, edges, 40, 120)
    const contours = new cv.MatVector()
    const order = new cv.Mat()
    cv.findContours(edges, contours, order, cv.RETR_LIST, cv.CHAIN_APPROX_NONE)
    let most = 0
    for (let i = 0; i < contours.size(); i++) most = Math.max(most, contours.get(i).rows)
    for (let i = 0; i < contours.size(); i++)
      if (contours.get(i).rows === most && most >= 5) cv.fitEllipseDirect(contours.get(i))
    for (const m of [image, grey, edges, contours, order]) m.delete()
  }
  const timed = (f: () => unknown) => {
    const started = performance.now()
    f()
    return performance.now() - started
  }
  const rounds = Array.from({ length: 5 }, () => [timed(ours), timed(plain)] as const)
  const [a, b] = [median(rounds.map(r => r[0])), median(rounds.map(r => r[1]))]
  console.log(
    `picture: 12 megapixels in ${(a / 1000).toFixed(2)} s (budget 1.5), the library's plain pipeline ` +
      `${(b / 1000).toFixed(2)} s; ratio ${(a / b).toFixed(2)}`,
  )
}

accuracy()
loading.then(speed)
