/** The general-purpose library that dots are held against: loaded once, on one thread. */
import cvModule from "@techstark/opencv-js";
import type { GreyPicture } from "../../src/core/picture/grey-picture";

/** The library has it, but its types do not. */
declare module "@techstark/opencv-js" {
  class SimpleBlobDetector {
    detect(picture: InstanceType<typeof cvModule.Mat>, found: InstanceType<typeof cvModule.KeyPointVector>): void;
    delete(): void;
  }
}

type OpenCv = typeof cvModule;

let loaded: Promise<{ cv: OpenCv }> | null = null;

/** In a box: the module itself is one that a promise would wait for without end. */
export function openCv(): Promise<{ cv: OpenCv }> {
  loaded ??= (async () => {
    const found: OpenCv | Promise<OpenCv> = cvModule;
    if (found instanceof Promise) return { cv: await found };
    if (!("Mat" in found))
      await new Promise<void>((done) => {
        cvModule.onRuntimeInitialized = () => done();
      });
    return { cv: cvModule };
  })();
  return loaded;
}

/** Otsu's threshold and connected components with their statistics. @returns milliseconds */
export function componentsTime(cv: OpenCv, { width, height, grey }: GreyPicture): number {
  const picture = new cv.Mat(height, width, cv.CV_8UC1);
  picture.data.set(grey);
  const began = performance.now();
  const [black, labels, stats, centres] = [new cv.Mat(), new cv.Mat(), new cv.Mat(), new cv.Mat()];
  cv.threshold(picture, black, 0, 255, cv.THRESH_BINARY_INV + cv.THRESH_OTSU);
  cv.connectedComponentsWithStats(black, labels, stats, centres, 8, cv.CV_32S);
  const ms = performance.now() - began;
  for (const mat of [picture, black, labels, stats, centres]) mat.delete();
  return ms;
}

/** Dark blobs by its detector as it comes: its parameters cannot be set here. Middle of the first pixel 0.5, 0.5. */
export function blobs(cv: OpenCv, { width, height, grey }: GreyPicture): { x: number; y: number }[] {
  const picture = new cv.Mat(height, width, cv.CV_8UC1);
  picture.data.set(grey);
  const detector = new cv.SimpleBlobDetector();
  const found = new cv.KeyPointVector();
  detector.detect(picture, found);
  const points = Array.from({ length: found.size() }, (_, i) => {
    const { x, y } = found.get(i).pt;
    return { x: x + 0.5, y: y + 0.5 };
  });
  for (const made of [picture, detector, found]) made.delete();
  return points;
}
