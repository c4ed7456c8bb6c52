/** A picture as the reader takes it: grey, row by row from the top, 0 black to 255 white. */
export type GreyPicture = {
  readonly width: number;
  readonly height: number;
  /** width times height values. */
  readonly grey: Uint8Array;
};

/** @throws RangeError when there are not as many values as pixels */
export function checkedPicture(picture: GreyPicture): GreyPicture {
  const { width, height, grey } = picture;
  if (!Number.isInteger(width) || !Number.isInteger(height) || width < 1 || height < 1)
    throw new RangeError(`A picture of ${width} × ${height} pixels cannot be read.`);
  if (grey.length !== width * height)
    throw new RangeError(`A picture of ${width} × ${height} pixels has ${width * height} values, not ${grey.length}.`);
  return picture;
}
