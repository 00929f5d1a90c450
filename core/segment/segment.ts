/** What cuts a picture into inside and outside, given what is known of it. */

/** What is known of a pixel. */
export const OUTSIDE = 0;
export const INSIDE = 1;
export const LIKELY_OUTSIDE = 2;
export const LIKELY_INSIDE = 3;

export interface SegmentJob {
  width: number;
  height: number;
  /** Red, green, blue of each pixel, row by row from the top. */
  rgb: Uint8Array;
  /** What is known of each pixel. */
  known: Uint8Array;
}

/** 1 for each pixel inside, 0 outside. What is known for sure stays. */
export type Segment = (job: SegmentJob) => Uint8Array;
