import { create } from "zustand";
import type { Vec3 } from "@/core/geometry/vec";

/** Where the pointer is on the part. A store of its own: it changes with every move, and only the readout looks at it. */
export const usePointer = create<{ at: Vec3 | null; point(at: Vec3 | null): void }>((set) => ({
  at: null,
  point: (at) => set({ at }),
}));
