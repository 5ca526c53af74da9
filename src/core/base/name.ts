import { z } from "zod";

/**
 * A name as a card can write it between double quotes: on one line, without blanks round it; a double quote in it is
 * set as type.
 */
export const nameText = z
  .string()
  .overwrite((text) => text.trim().replaceAll('"', "”"))
  .max(120)
  .regex(/^[^\p{Cc}\u2028\u2029]*$/u, "a name stands on one line, without a break or a tabulator");
