import { problems } from "./problems";
import type { Balloon } from "../job/schema";
import { fail, ok, type Result } from "../base/result";
import { findThread, type Thread } from "../tables";
import { COINCIDENT } from "../geometry/tolerance";

/** The balloon a thread is taken from by its number (`#9`), or null where the thread itself is written. */
export const citedIn = (thread: string): number | null => {
  const number = /^#(\d{1,4})$/.exec(thread);
  return number ? Number(number[1]) : null;
};

/** The designation a row's thread stands for: its own, or that of the balloon it cites. */
export function threadMeant(thread: string, balloons: readonly Balloon[]): Result<string> {
  const cited = citedIn(thread);
  if (cited === null) return ok(thread);
  const b = balloons.find((o) => o.number === cited);
  if (!b) return fail(problems.noBalloon(cited), { path: "thread" });
  return b.thread === undefined ? fail(problems.balloonIsNoThread(cited), { path: "thread" }) : ok(b.thread);
}

const same = (a: Thread, b: Thread): boolean =>
  a.system === b.system && Math.abs(a.major - b.major) < COINCIDENT && Math.abs(a.pitch - b.pitch) < COINCIDENT;

/** Balloons that print the thread of a row: the one it cites, or every one that says the same thread. */
export function balloonsOfThread(thread: string, balloons: readonly Balloon[]): Balloon[] {
  const cited = citedIn(thread);
  if (cited !== null) return balloons.filter((b) => b.number === cited && b.thread !== undefined);
  const mine = findThread(thread);
  return balloons.filter((b) => {
    const theirs = mine && b.thread !== undefined ? findThread(b.thread) : null;
    return mine !== null && theirs !== null && same(mine, theirs);
  });
}
