import { need } from './need'

/**
 * Eigenvalues and vectors of a small symmetric matrix by Jacobi rotations (Press et al., Numerical Recipes, section
 * 11.1).
 * `vectors[i]` belongs to `values[i]`; values rise. Meant for a few dozen rows.
 */
export function symmetricEigen(matrix: readonly (readonly number[])[]): { values: number[]; vectors: number[][] } {
  const n = matrix.length
  for (const row of matrix) for (const v of row) need('matrix', v, -Number.MAX_VALUE, Number.MAX_VALUE)
  const a = matrix.map(r => [...r])
  const v = a.map((_, i) => a.map<number>((__, j) => (i === j ? 1 : 0)))
  for (let sweep = 0; sweep < 60; sweep++) {
    let off = 0
    for (let i = 0; i < n; i++) for (let j = 0; j < i; j++) off += a[i]![j]! ** 2
    if (off < 1e-40 * a.reduce((s, r, i) => s + r[i]! ** 2, 0)) break
    for (let p = 0; p < n; p++)
      for (let q = p + 1; q < n; q++) {
        const apq = a[p]![q]!
        if (apq === 0) continue
        const theta = (a[q]![q]! - a[p]![p]!) / (2 * apq)
        const t = Math.sign(theta || 1) / (Math.abs(theta) + Math.sqrt(theta * theta + 1))
        const c = 1 / Math.sqrt(t * t + 1),
          s = t * c
        for (let k = 0; k < n; k++) {
          const x = a[k]![p]!,
            y = a[k]![q]!
          a[k]![p] = c * x - s * y
          a[k]![q] = s * x + c * y
        }
        for (let k = 0; k < n; k++) {
          const x = a[p]![k]!,
            y = a[q]![k]!
          a[p]![k] = c * x - s * y
          a[q]![k] = s * x + c * y
          const w = v[p]![k]!,
            z = v[q]![k]!
          v[p]![k] = c * w - s * z
          v[q]![k] = s * w + c * z
        }
      }
  }
  const order = a.map((_, i) => i).sort((i, j) => a[i]![i]! - a[j]![j]!)
  return { values: order.map(i => a[i]![i]!), vectors: order.map(i => v[i]!) }
}
