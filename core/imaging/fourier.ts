/**
 * Fast Fourier transform of a square picture whose side is a power of two, in place.
 * Source: Cooley & Tukey (1965); Press et al., Numerical Recipes, section 12.2.
 */
import { InputError } from '../numeric'

function transform(re: Float64Array, im: Float64Array, n: number, from: number, step: number): void {
  for (let i = 1, j = 0; i < n; i++) {
    let bit = n >> 1
    for (; j & bit; bit >>= 1) j ^= bit
    j ^= bit
    if (i >= j) continue
    const p = from + i * step
    const q = from + j * step
    ;[re[p], re[q]] = [re[q]!, re[p]!]
    ;[im[p], im[q]] = [im[q]!, im[p]!]
  }
  for (let length = 2; length <= n; length *= 2) {
    const angle = (-2 * Math.PI) / length
    const wr = Math.cos(angle)
    const wi = Math.sin(angle)
    for (let i = 0; i < n; i += length) {
      let cr = 1
      let ci = 0
      for (let k = 0; k < length / 2; k++) {
        const p = from + (i + k) * step
        const q = from + (i + k + length / 2) * step
        const xr = re[q]! * cr - im[q]! * ci
        const xi = re[q]! * ci + im[q]! * cr
        re[q] = re[p]! - xr
        im[q] = im[p]! - xi
        re[p] = re[p]! + xr
        im[p] = im[p]! + xi
        const next = cr * wr - ci * wi
        ci = cr * wi + ci * wr
        cr = next
      }
    }
  }
}

/** Real and imaginary parts of `size` × `size` values, row by row, become those of their waves. */
export function transform2(re: Float64Array, im: Float64Array, size: number): void {
  if (size < 2 || (size & (size - 1)) !== 0) throw new InputError('size', size, 'a power of two')
  for (const v of [re, im]) if (v.length !== size * size) throw new InputError('length', v.length, `${size} × ${size}`)
  for (let y = 0; y < size; y++) transform(re, im, size, y * size, 1)
  for (let x = 0; x < size; x++) transform(re, im, size, x, size)
}
