/** Everything that is reached from some places along passages, each from its first end to its second. */
export function spread(
  from: readonly string[],
  passages: readonly (readonly string[])[],
): Set<string> {
  const reached = new Set(from)
  for (let before = -1; before !== reached.size;) {
    before = reached.size
    for (const [a, b] of passages) if (a && b && reached.has(a)) reached.add(b)
  }
  return reached
}
