import { INCH } from "../../number";
import { inchDrills } from "../inchDrills";
import { metricDrills, type Drill } from "../metricDrills";
import { unifiedMinor } from "./unifiedTolerances";

/**
 * Per cent of full thread a drilled hole leaves: 100 (major - drill) / (1.299038 pitch).
 * @source thread height of the basic profile, 2 x 5/8 H with H = 0.866025 P and 3/4 H counted as full: ASME B1.1
 * practice, from memory
 */
export const percentThread = (t: { major: number; pitch: number }, drill: number): number =>
  (100 * (t.major - drill)) / (1.299038 * t.pitch);

/** The share of thread that charts of tap drills aim at; common practice, no source. */
const USUAL_THREAD = 0.75;

/**
 * The tap drill of an inch thread: the chart's where it has one, else the nearest to 75 % of thread within the limits of
 * class 2B, an inch drill where one lies there.
 * @param charted the name of the drill in usual charts
 */
export function inchTapDrill(major: number, pitch: number, charted?: string): Drill {
  const drill = charted === undefined ? undefined : inchDrills.rows.find((d) => d.name === charted);
  if (drill) return drill;
  const wanted = major - USUAL_THREAD * 1.299038 * pitch;
  const { min, max } = unifiedMinor({ major, pitch }, 2);
  const nearest = (drills: readonly Drill[]) =>
    drills
      .filter((d) => d.diameter > min - 1e-9 && d.diameter < max + 1e-9)
      .reduce<Drill | null>((a, d) => (!a || off(d) < off(a) ? d : a), null);
  const off = (d: Drill) => Math.abs(d.diameter - wanted);
  const halves = metricDrills.rows.filter((d) => (d.diameter * 2) % 1 === 0);
  return nearest(inchDrills.rows) ?? nearest(halves) ?? nearest(metricDrills.rows) ?? boredTo(wanted);
}
/** Over the largest drill, and where none lies between the limits, it is bored, to the thousandth. */
const boredTo = (diameter: number): Drill => {
  const thousandths = Math.round((diameter / INCH) * 1000) / 1000;
  return { name: `bored to ${thousandths.toFixed(3)}`, diameter: thousandths * INCH };
};

/** The share of a thread that is aimed at where it is formed instead of cut; common practice, no source. */
const FORMED_THREAD = 0.65;
/**
 * The hole for a tap that forms its thread: the material that flows up comes from below, half the height of the thread.
 * @returns diameter, mm   @source d = D - 0.68 x share x pitch, as makers of taps give it; common practice, no source
 */
export const formingHole = (t: { major: number; pitch: number }): number => t.major - 0.68 * FORMED_THREAD * t.pitch;
