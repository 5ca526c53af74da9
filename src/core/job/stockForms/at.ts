import { z } from "zod";
import { numberText } from "../../number";

/** A place in the job's coordinates, as typed. */
export const at = z.strictObject({ x: numberText, y: numberText, z: numberText });
