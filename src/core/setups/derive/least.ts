/** A nest less deep than this, or less than this under the part, holds nothing, mm. */
export const LEAST_NEST = 0.5;
