/** Samples as they come in, growing, with lost ones as NaN. */
export class Samples {
  private values = new Float64Array(1024)
  private count = 0
  private lastSeq: number | null = null

  get length(): number {
    return this.count
  }

  /** A gap in the counting is filled with lost samples, up to a minute of them. */
  add(seq: number, value: number, mostLost: number): void {
    if (this.lastSeq !== null && seq > this.lastSeq + 1) {
      const lost = Math.min(seq - this.lastSeq - 1, mostLost)
      for (let n = 0; n < lost; n++) this.push(NaN)
    }
    this.lastSeq = seq
    this.push(value)
  }

  /** After a new connection the gauge may count from one again. */
  restart(lost: number): void {
    this.lastSeq = null
    for (let n = 0; n < lost; n++) this.push(NaN)
  }

  private push(value: number): void {
    if (this.count === this.values.length) {
      const wider = new Float64Array(2 * this.count)
      wider.set(this.values)
      this.values = wider
    }
    this.values[this.count++] = value
  }

  /** A copy of the samples from one on: as long as a test runs, and not as long as the gauge is on. */
  since(first = 0): Float64Array {
    return this.values.slice(Math.min(first, this.count), this.count)
  }
}
