import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { pieceStates } from "../engine/piece";
import type { EvaluatedPart } from "../evaluate/parts";
import { dot } from "../geometry/vec";
import type { Setup } from "../job/schema";
import { holderNamed, lay, type Lying } from "./lying";
import type { StandingSetup, Work } from "./setup";

/** The stations of a holder that serve a setup: where the piece lies as the setup before it left it. */
export function stationsFor(
  parts: EvaluatedPart[],
  work: Work,
  { setup, frame, piece }: StandingSetup,
  name: string,
): Result<Lying[]> {
  const holder = holderNamed(parts, name);
  if (!holder.ok) return holder;
  const before = setupBefore(work, setup);
  const own = allStations(parts, work, name, piece.before).filter(
    (l) => (l.placement.setup ?? before) === before && dot(l.frame.normal, frame.normal) > SAME_WAY,
  );
  return own.length ? ok(own) : fail(problems.noPlaceForPiece(name, setup.op, parts[0].name, upWords(setup)));
}
/** The cosine over which two ways up are one. */
const SAME_WAY = 0.999;

function setupBefore(work: Work, setup: Setup): number {
  const setups = work.job.setups ?? [];
  const i = setups.indexOf(setup);
  return i > 0 ? setups[i - 1].op : 0;
}
const upWords = ({ up }: Setup): string => (typeof up === "string" ? `UP ${up.toUpperCase()}` : "that side");

/**
 * Every station of a holder, each with the piece as it comes there.
 * @param piece what lies where a station does not say after which setup
 */
export function allStations(parts: EvaluatedPart[], work: Work, name: string, piece = work.finalKey): Lying[] {
  const holder = holderNamed(parts, name);
  const states = pieceStates(work);
  if (!holder.ok || !states.ok) return [];
  const own = parts[0].name.toLowerCase();
  return holder.value.part.places
    .filter((p) => p.part.toLowerCase() === own)
    .flatMap((p) => {
      const key = p.setup === undefined ? piece : states.value.find((s) => s.op === p.setup)?.after;
      const laid = key ? lay(work.kernel, p, key, holder.value.key, work.scope) : null;
      return laid?.ok ? [laid.value] : [];
    });
}
