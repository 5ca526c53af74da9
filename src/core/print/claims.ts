import type { FaceTag } from "../engine/kernel";

/** Faces of a row: of one copy and one role, or all of them. */
export type ClaimedFaces = Pick<FaceTag, "row"> & Partial<Pick<FaceTag, "instance" | "role">>;

/** Whether a face is among those a claim was read from. */
export const isClaimed = (claimed: ClaimedFaces[], tag: FaceTag | null): boolean =>
  tag !== null &&
  claimed.some(
    (c) =>
      c.row === tag.row &&
      (c.instance === undefined || c.instance === tag.instance) &&
      (c.role === undefined || c.role === tag.role),
  );

/** What a dimension claims of the solid: one thing that is true there, false there, or was not examined. */
export interface Claim {
  /** What kind of thing: its value where it is used, what it is, how many, what its words say, its thread. */
  of: "value" | "kind" | "count" | "words" | "thread";
  /** What it claims, in words. */
  says: string;
  state: "true" | "false" | "unexamined";
  /** What was found, or why it was not looked at. */
  by: string;
  /** Faces it was read from. */
  on: ClaimedFaces[];
}

/** What all claims of a dimension come to: one that is false is enough, and one not examined keeps it from proof. */
export function claimed(claims: Claim[]): "proved" | "off" | "drives" {
  if (claims.some((c) => c.state === "false")) return "off";
  return claims.length > 0 && claims.every((c) => c.state === "true") ? "proved" : "drives";
}

/** The claim that decides: the first false one, else the first that was not examined. */
export const deciding = (claims: Claim[]): Claim | undefined =>
  claims.find((c) => c.state === "false") ?? claims.find((c) => c.state === "unexamined");
