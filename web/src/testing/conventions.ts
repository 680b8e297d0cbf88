import { beforeEach, vi } from 'vitest'

/** Where tests are carried out, whatever the machine speaks. */
beforeEach(() => void vi.spyOn(navigator, 'language', 'get').mockReturnValue('en-GB'))
