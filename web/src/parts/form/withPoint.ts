/**
 * What is typed for a figure, with a point where a comma stands: the keypad of many a phone has no other.
 * It is changed under the eyes of whoever types, so that a comma meant for thousands is seen to be none.
 */
export const withPoint = (typed: string): string => typed.replace(',', '.')
