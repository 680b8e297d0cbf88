import type { Guide, SubGuide } from '../guide'
import { yamlFolder } from './yaml'

/** The shipped guides, for tests. That they keep to their schema is tested with the library. */
export const shippedGuides = yamlFolder<Guide>('guides')
export const shippedSubGuides = yamlFolder<SubGuide>('guides/shared')
