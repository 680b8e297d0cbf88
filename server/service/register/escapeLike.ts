/** A text as LIKE takes it by the letter. */
export const escapeLike = (text: string) => text.replace(/[\\%_]/g, (c) => `\\${c}`)
