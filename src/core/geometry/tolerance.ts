/**
 * How near is the same: every closeness the core, the kernel and the files ask for, by what is compared.
 * Lengths mm, angles radians; where a length is compared to its own size they are shares of it.
 */

/** What arithmetic loses: a difference below this is none. */
export const ROUNDING = 1e-12;
/** Two numbers that were worked out are the same. */
export const COINCIDENT = 1e-9;
/** Two surfaces measured on a solid touch. */
export const CONTACT = 1e-6;
/** Two ends of lines meet. */
export const MEET = 1e-5;
/** Below this nobody sees a difference on the screen. */
export const DISPLAY = 1e-4;
/** The cosine over which two directions are one. */
export const PARALLEL = 1 - COINCIDENT;
/** The same for directions that come from one and the same arithmetic. */
export const EXACTLY_PARALLEL = 1 - ROUNDING;
