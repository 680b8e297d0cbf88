import type { Library } from '../../library'
import type { VisitState } from '../log/state'

type Derive<R> = (state: VisitState, library: Library) => R

/**
 * A view of a visit that is worked out once for a state and a library, however many rules and screens
 * ask for it. Both are never changed in place, so what was worked out stays true; it is forgotten
 * together with the state.
 */
export function remembered<R>(derive: Derive<R>): Derive<R> {
  const known = new WeakMap<VisitState, WeakMap<Library, { readonly view: R }>>()
  return (state, library) => {
    const byLibrary = known.get(state) ?? new WeakMap<Library, { readonly view: R }>()
    known.set(state, byLibrary)
    const have = byLibrary.get(library) ?? { view: derive(state, library) }
    byLibrary.set(library, have)
    return have.view
  }
}
