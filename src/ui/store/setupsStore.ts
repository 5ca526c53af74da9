"use client";
import { create } from "zustand";
import type { Setup } from "@/core/job";
import type { Moment, SetupsView } from "@/core/setups";
import type { StandingBody } from "@/kernel/worker";

interface SetupsState {
  /** What follows from the job's setups, as the engine told it last. */
  view: SetupsView | null;
  /** What stands in the setup that is looked at. */
  bodies: StandingBody[];
  /** Op number of the setup they stand in. */
  shown: number | null;
  machine: Setup["machine"] | null;
  /** The setup that is open; null for none. */
  open: number | null;
  /** Whether the piece stands there as the setup starts from it or as it leaves it. */
  moment: Moment;
  /** How far the jaws are opened: 0 closed, 1 wide open. */
  opened: number;
  busy: boolean;
  problem: string;
  set(p: Partial<SetupsState>): void;
}

/** The setups on the bench right now; nothing of it is part of the job. */
export const useSetups = create<SetupsState>((set) => ({
  view: null,
  bodies: [],
  shown: null,
  machine: null,
  open: null,
  moment: "start",
  opened: 0,
  busy: false,
  problem: "",
  set: (p) => set(p),
}));
