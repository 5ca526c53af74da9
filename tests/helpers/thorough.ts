/**
 * How much of what is tried by chance is tried: on every run as much as two cores do in time, all of it with
 * `SGORBIA_THOROUGH=1 npm test`.
 */
export const runs = <T>(all: T, usual: T): T => (process.env.SGORBIA_THOROUGH ? all : usual);
