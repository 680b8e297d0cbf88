/** The value of one of the theme’s colours at present, for what is drawn on a canvas. */
export const cssColour = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(name).trim()
