import { keyOf } from "../base/key";
import { ok, type Result } from "../base/result";
import { plateAfter, plateFrom, type Plate } from "./flat";
import type { KernelStep, SolidKernel } from "./kernel";

/** How far the part has come: its state, what it is as one plate, its volume. */
export interface Standing {
  key: string | null;
  plate: Plate | null;
  volume: number;
}

/** One step further. A state that is there already, under the key of its whole prefix, is not made again. */
export function advance(kernel: SolidKernel, at: Standing, step: KernelStep, thru: boolean): Result<Standing> {
  const plate: Plate | null = at.key === null ? plateFrom(step) : at.plate && plateAfter(at.plate, step, thru);
  const actual = plate ?? step;
  const from = plate ? null : at.key;
  const key = keyOf(from, actual);
  const made = kernel.apply(key, from, actual);
  return made.ok ? ok({ key, plate, volume: made.value.volume }) : made;
}
