/** The largest file that is sent to the server at once, bytes. The readers of each format have limits of their own below it. */
export const LARGEST_FILE = 24 * 1024 * 1024;

/** Pixels of the largest picture that is taken or drawn: so many still fit the memory of a small machine. */
export const MOST_PIXELS = 100_000_000;

/** The largest picture: 100 megapixels of grey as they are, with room for what stands before them. */
export const LARGEST_PICTURE = 112 * 1024 * 1024;
