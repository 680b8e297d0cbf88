/** A query made of what somebody chose: what is empty is left out, and the server checks the rest. */
export const queryFrom = <Q>(given: Readonly<Record<string, string | undefined>>): Q =>
  Object.fromEntries(Object.entries(given).filter(([, value]) => value)) as Q
