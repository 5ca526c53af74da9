/** Rules about how the piece is held: told on the Hold step and not with the part. Setups remark under the same names. */
export const holdingRules = {
  tooShallow: "grip-too-shallow",
  refused: "grip-refused",
  intoJaw: "cut-into-jaw",
  tooLittle: "grip-area",
} as const;

const ids: readonly string[] = Object.values(holdingRules);

/** Whether a rule's remarks are about how the piece is held. */
export const isAboutHolding = (rule: string): boolean => ids.includes(rule);

const aboutDepth: readonly string[] = [holdingRules.tooShallow, holdingRules.refused];

/**
 * Remarks of the workpiece on how it is held beside those of its setup: a grip is offered once. What the setup found
 * holds enough of the piece and is as deep as the workpiece wants it.
 */
export function withOneGrip<F extends { rule: string; fix?: unknown }>(told: F[], own: F[]): F[] {
  const isOffered = own.some((f) => f.rule === holdingRules.tooLittle && f.fix);
  return told.map((f) => (isOffered && aboutDepth.includes(f.rule) ? { ...f, fix: undefined } : f));
}
