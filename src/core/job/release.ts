import { keyOfContent } from "../base/key";
import type { Job } from "./schema";

/** How a job stands to its signature. */
type ReleaseState =
  | { state: "draft" }
  /** Signed, and nothing has changed since. */
  | { state: "released"; by: string }
  /** Signed under this revision, and changed since: it wants a revision of its own. */
  | { state: "changed"; by: string }
  /** An earlier revision was signed; this one is not yet. */
  | { state: "earlier"; by: string; revision: string };

/** Version of the form signatures are counted in. */
const SIGNED_FORM = 2;
const known = new WeakMap<Job, string>();

/** A short key of all that a document says, its signature left out. */
export function contentOf(job: Job): string {
  const was = known.get(job);
  if (was) return was;
  const { signOff: _, ...rest } = job;
  // The form it is written in is no part of what a document says: one that was signed in an older form stays signed.
  const key = keyOfContent({ ...rest, version: SIGNED_FORM });
  known.set(job, key);
  return key;
}

/** Another part is signed with the whole job: what it says is what the job as its workpiece is worked on says. */
export function signedWith(part: Job, whole: Job): Job {
  known.set(part, contentOf(whole));
  return part;
}

export function releaseState(job: Job): ReleaseState {
  const s = job.signOff;
  if (!s) return { state: "draft" };
  if (s.revision !== job.revision) return { state: "earlier", by: s.by, revision: s.revision };
  return { state: s.content === contentOf(job) ? "released" : "changed", by: s.by };
}

/** How a job stands to its signature, in the words that stand on every sheet and in every file that can say it. */
export function releaseWords(job: Job): string {
  const standing = releaseState(job);
  switch (standing.state) {
    case "draft":
      return "draft";
    case "released":
      return `released by ${standing.by}`;
    case "changed":
      return "changed since release";
    case "earlier":
      return `draft; revision ${standing.revision} was released`;
  }
}

/** The revision after one: the next letter or number (`A` to `B`, `Z` to `AA`, `3` to `4`). */
export function nextRevision(revision: string): string {
  if (/^\d+$/.test(revision)) return String(Number(revision) + 1);
  if (!/^[A-Z]+$/i.test(revision)) return revision ? `${revision}-1` : "A";
  const letters = [...revision.toUpperCase()];
  for (let i = letters.length - 1; i >= 0; i--) {
    if (letters[i] !== "Z") {
      letters[i] = String.fromCharCode(letters[i].charCodeAt(0) + 1);
      return letters.join("");
    }
    letters[i] = "A";
  }
  return `A${letters.join("")}`;
}
