import { writeBalloonText } from "@/core/callout";
import { numberScope } from "@/core/engine/numbers";
import type { Balloon, Job } from "@/core/job";
import { evaluateNumber, type Quantity } from "@/core/number";

/** What a number field offers while it is typed: the whole text it would become, and what says it in the list. */
export interface Offer {
  whole: string;
  short: string;
  text: string;
}

const MOST_OFFERED = 8;

/** Balloons while `#` is typed, named values while a word is. */
export function offersFor(draft: string, job: Job, quantity: Quantity): Offer[] {
  const hash = /#(\d*)$/.exec(draft);
  if (hash) return balloonOffers(draft.slice(0, hash.index), hash[1], job, quantity);
  const word = /(?<![\w#.])([A-Za-z_]\w*)$/.exec(draft);
  return word ? nameOffers(draft.slice(0, word.index), word[1].toLowerCase(), job) : [];
}

/** Inside an expression any length may stand; alone in the field the balloon has to be of the field's own kind. */
function balloonOffers(head: string, digits: string, job: Job, quantity: Quantity): Offer[] {
  const mayStand = (b: Balloon) => !b.reference && b.kind !== "thread";
  return job.balloons
    .filter((b) => mayStand(b) && (head.trim() !== "" || kindFits(b.kind, quantity)))
    .filter((b) => String(b.number).startsWith(digits))
    .slice(0, MOST_OFFERED)
    .map((b) => ({
      whole: `${head}#${b.number}`,
      short: String(b.number),
      text: writeBalloonText({ ...b, note: undefined, zone: undefined }),
    }));
}

const nameOffers = (head: string, begun: string, job: Job): Offer[] =>
  job.names
    .filter((n) => n.name.toLowerCase().startsWith(begun))
    .slice(0, MOST_OFFERED)
    .map((n) => ({ whole: head + n.name, short: n.name, text: n.value }));

/**
 * The balloon a bare number is most likely read from: one of a fitting kind with the same figure.
 * @param unused balloons that nothing uses yet: the likeliest to be meant
 */
export function balloonOf(typed: number, job: Job, quantity: Quantity, unused: readonly number[]): Balloon | undefined {
  const scope = numberScope(job);
  const equals = (b: Balloon) => {
    const figure = b.value === undefined ? null : evaluateNumber(b.value, "plain", scope);
    return figure?.ok === true && Math.abs(figure.value.typed - typed) < 1e-9;
  };
  const equal = job.balloons.filter((b) => !b.reference && kindFits(b.kind, quantity) && equals(b));
  return equal.find((b) => unused.includes(b.number)) ?? equal[0];
}

function kindFits(kind: string, quantity: Quantity): boolean {
  switch (quantity) {
    case "angle":
    case "includedAngle":
      return kind === "angle";
    case "count":
      return kind === "count";
    default:
      return kind !== "angle" && kind !== "count" && kind !== "thread";
  }
}
