import type { Content } from 'pdfmake/interfaces'

export const INK = '#1b2430'
export const RULE = 0.6

export const mono = (text: string, size = 9): Content => ({ text, font: 'Mono', fontSize: size })
export const small = (text: string): Content => ({ text, fontSize: 7.5, color: '#4a5563' })
