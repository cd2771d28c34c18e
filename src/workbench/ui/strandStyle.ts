/** Colour, dash and label of each tree's strand: the same for a tree wherever it is drawn, whatever else is shown. */
const COLOURS = 8;
const DASHES = ['', '11 4', '3 3.5', '11 3.5 2.5 3.5', '18 5', '7 3 7 3 2 3'] as const;

export interface StrandStyle {
  /** A CSS colour. */
  readonly colour: string;
  /** An SVG dash array; empty for a line without gaps. */
  readonly dash: string;
}

/** The style of the tree at this place in the design's list of trees. */
export const strandStyle = (index: number): StrandStyle => ({
  colour: `var(--strand-${index % COLOURS})`,
  dash: DASHES[index % DASHES.length] ?? '',
});
