/**
 * Colours by which people are told apart, beside their initials: the palette of Okabe and Ito, made to be told
 * apart by people of every kind of colour vision (M. Okabe and K. Ito, "Color Universal Design", 2008,
 * jfly.uni-koeln.de/color), without its black and in an order in which neighbours differ most.
 */
export const PEOPLE_COLOURS = [
  '#0072b2',
  '#e69f00',
  '#009e73',
  '#cc79a7',
  '#d55e00',
  '#56b4e9',
  '#f0e442',
] as const;

/** The colour of the person who came `n`th, from 0; after seven they come again, told apart by initials. */
export function colourOfPerson(n: number): string {
  return PEOPLE_COLOURS[n % PEOPLE_COLOURS.length]!;
}
