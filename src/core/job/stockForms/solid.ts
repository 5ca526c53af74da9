import { z } from "zod";
import { at } from "./at";
import type { StockForm } from "./form";

const schema = z.strictObject({
  shape: z.literal("solid"),
  /** The name of a STEP file that the job keeps; on a card a path beside the card. */
  file: z.string().min(1).max(120),
  at: at.optional(),
});

/** `SOLID "casting.step"`: a casting, a forging or a sawn piece as it comes, where its own file has it. */
export const solid: StockForm<z.infer<typeof schema>> & { schema: typeof schema } = {
  shape: "solid",
  label: "solid from a STEP file",
  words: ["SOLID"],
  schema,
  fields: [],
  read(r) {
    const file = r.quoted().trim();
    return file ? { shape: "solid", file } : r.fail("the name of a STEP file");
  },
  write: (s) => `"${s.file.replace(/"/g, "”")}"`,
  section: null,
  propose: () => null,
  sawn: [],
};
