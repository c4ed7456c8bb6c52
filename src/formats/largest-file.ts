/** The largest file that is sent to the server at once, bytes. The readers of each format have limits of their own below it. */
export const LARGEST_FILE = 24 * 1024 * 1024;
