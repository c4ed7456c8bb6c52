/** A place in a grid of dots. */

/** Columns to the right and rows away from the operator, from the centre of the grid. */
export type Node = { column: number; row: number };

/** Dots that have their place, by the index of the dot. */
export type Nodes = Map<number, Node>;

export const keyOf = ({ column, row }: Node) => `${column} ${row}`;
