import { describe, expect, it } from 'vitest'
import { certificateCode, certificateNumber } from './number'
import { typedCode } from './typedCode'

const number = certificateNumber('LH', 2026, 42)
const code = certificateCode(number, 'K7QX2M9A')

describe('a code as somebody types it', () => {
  it.each([
    code,
    code.toLowerCase(),
    code.replaceAll('-', ''),
    code.replaceAll('-', ' '),
    ` LH 2026-000042 – K7QX2M9A `,
  ])('is the one that is kept: %s', (typed) => {
    expect(typedCode(typed)).toEqual({ code })
  })
  it('is told from the number alone, which proves nothing', () => {
    expect(typedCode(number)).toEqual({ numberOnly: number })
    expect(typedCode('lh 2026 000042')).toEqual({ numberOnly: number })
  })
  it.each(['', 'K7QX2M9A', 'LH-2026-42-K7QX2M9A', `${code}X`])('is none: “%s”', (typed) => {
    expect(typedCode(typed)).toBeNull()
  })
})
