/** What a test changed of the clock and of what is global is put back: files that come after it share the process. */
import { afterEach, vi } from "vitest";

afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
