/** A seeded source of numbers, ids and choices: the same seed gives the same demo (mulberry32). */
export class Seeded {
  constructor(private state: number) {}

  /** 0 ≤ x < 1 */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
  }

  between(low: number, high: number): number {
    return low + this.next() * (high - low)
  }

  whole(low: number, high: number): number {
    return Math.floor(this.between(low, high + 1))
  }

  chance(probability: number): boolean {
    return this.next() < probability
  }

  pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.next() * list.length)] as T
  }

  /** About normal, by the sum of six. */
  around(mean: number, deviation: number): number {
    let sum = 0
    for (let i = 0; i < 6; i++) sum += this.next()
    return mean + (sum - 3) * Math.SQRT2 * deviation
  }

  uuid(): string {
    const hex = () =>
      Math.floor(this.next() * 0x1_0000)
        .toString(16)
        .padStart(4, '0')
    return `${hex()}${hex()}-${hex()}-7${hex().slice(1)}-9${hex().slice(1)}-${hex()}${hex()}${hex()}`
  }

  suffix(): string {
    return Array.from({ length: 8 }, () => this.pick([...'23456789ABCDEFGHJKMNPQRSTVWXYZ'])).join(
      '',
    )
  }
}
