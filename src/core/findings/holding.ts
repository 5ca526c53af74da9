/** Rules about how the piece is held: told on the Hold step and not with the part. Setups remark under the same names. */
export const holdingRules = {
  tooShallow: "grip-too-shallow",
  refused: "grip-refused",
  intoJaw: "cut-into-jaw",
} as const;

const ids: readonly string[] = Object.values(holdingRules);

/** Whether a rule's remarks are about how the piece is held. */
export const isAboutHolding = (rule: string): boolean => ids.includes(rule);
