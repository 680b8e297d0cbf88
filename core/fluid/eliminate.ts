/**
 * Solves A·x = b in place by Gaussian elimination with partial pivoting; x stands in `b` afterwards.
 * Written here because it runs four times a step on a dozen unknowns and must not allocate: general
 * matrix packages took about fifteen times as long on this size.
 *
 * @param a n × n, by rows; destroyed
 * @returns the index of the row that has no pivot, or −1
 */
export function eliminate(a: Float64Array, b: Float64Array, n: number): number {
  for (let k = 0; k < n; k++) {
    let pivot = k
    let best = Math.abs(a[k * n + k] as number)
    for (let i = k + 1; i < n; i++) {
      const size = Math.abs(a[i * n + k] as number)
      if (size > best) {
        best = size
        pivot = i
      }
    }
    if (!(best > 0) || !Number.isFinite(best)) return k
    if (pivot !== k) swapRows(a, b, n, k, pivot)
    const diagonal = a[k * n + k] as number
    for (let i = k + 1; i < n; i++) {
      const factor = (a[i * n + k] as number) / diagonal
      if (factor === 0) continue
      for (let j = k + 1; j < n; j++) {
        a[i * n + j] = (a[i * n + j] as number) - factor * (a[k * n + j] as number)
      }
      b[i] = (b[i] as number) - factor * (b[k] as number)
    }
  }
  for (let i = n - 1; i >= 0; i--) {
    let sum = b[i] as number
    for (let j = i + 1; j < n; j++) sum -= (a[i * n + j] as number) * (b[j] as number)
    b[i] = sum / (a[i * n + i] as number)
  }
  return -1
}

function swapRows(a: Float64Array, b: Float64Array, n: number, i: number, j: number): void {
  for (let c = 0; c < n; c++) {
    const held = a[i * n + c] as number
    a[i * n + c] = a[j * n + c] as number
    a[j * n + c] = held
  }
  const held = b[i] as number
  b[i] = b[j] as number
  b[j] = held
}
