/** A channel of a recorder: what it showed, by how many samples of the gauge there were then. */
export class Channel {
  private readonly at: number[] = []
  private readonly values: number[] = []

  constructor(readonly unit: string) {}

  add(at: number, value: number): void {
    this.at.push(at)
    this.values.push(value)
  }

  /** What it showed from a sample of the gauge on, each with the sample at which it did. */
  since(from: number): { at: number; value: number }[] {
    const first = this.at.findIndex((n) => n >= from)
    if (first < 0) return []
    return this.values.slice(first).map((value, n) => ({ at: this.at[first + n] as number, value }))
  }
}
