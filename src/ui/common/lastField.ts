/** The number field that had the keyboard last: what the reckoner puts its result into. */
let last: ((text: string) => void) | null = null;

export const rememberField = (commit: (text: string) => void): void => {
  last = commit;
};
/** Puts a number into the field used last; false when there was none. */
export function putIntoLastField(text: string): boolean {
  last?.(text);
  return last !== null;
}
