/**
 * The command among the words that the launcher was called with; undefined where there is none. The directory after
 * `--data` is not one.
 * @param {readonly string[]} words
 */
export const commandIn = (words) =>
  words.find((word, n) => !word.startsWith('-') && words[n - 1] !== '--data')
