/** The two axes along which a machine moves: X to the right, Y away from the operator. */
export const AXES = ["x", "y"] as const;
export type Axis = (typeof AXES)[number];
