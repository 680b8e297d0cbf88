/** Uniform numbers from a seed: a test that fails names its seed. */
export function randomNumbers(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 32
  }
}

/** About normal with mean 0 and deviation 1. */
export function normalNumbers(seed: number): () => number {
  const uniform = randomNumbers(seed)
  return () => {
    let sum = -6
    for (let n = 0; n < 12; n++) sum += uniform()
    return sum
  }
}
