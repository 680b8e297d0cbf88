/**
 * Probability that a Student variable lies below t.
 * Source: Abramowitz & Stegun 26.7.3 and 26.7.4, exact for whole degrees of freedom.
 * @param degrees whole number, at least 1
 */
export function studentBelow(t: number, degrees: number): number {
  const angle = Math.atan(t / Math.sqrt(degrees))
  const [sine, cosine] = [Math.sin(angle), Math.cos(angle)]
  const odd = degrees % 2 === 1
  let term = odd ? cosine : 1
  let sum = degrees === 1 ? 0 : term
  for (let k = odd ? 3 : 2; k < degrees; k += 2) {
    term *= ((k - 1) / k) * cosine * cosine
    sum += term
  }
  const within = odd ? (2 / Math.PI) * (angle + sine * sum) : sine * sum
  return 0.5 + within / 2
}

const STEPS = 60

/** The value below which a Student variable lies with this probability, by bisection. */
export function studentQuantile(probability: number, degrees: number): number {
  let [low, high] = [-1e4, 1e4]
  for (let n = 0; n < STEPS; n++) {
    const middle = (low + high) / 2
    if (studentBelow(middle, degrees) < probability) low = middle
    else high = middle
  }
  return (low + high) / 2
}
