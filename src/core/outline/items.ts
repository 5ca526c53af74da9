import { z } from "zod";
import { outlineItem, type OutlineItem } from "./lines/registry";

export {
  numbersOfItem,
  outlineForms,
  outlinesUsed,
  readOutlineItem,
  renamedIn,
  writeOutlineItem,
  type OutlineItem,
} from "./lines/registry";
export type { ItemNumber } from "./lines/common";
export type Walked = Extract<OutlineItem, { item: "start" | "line" | "arc" | "relation" | "dimension" }>;

export const outlineSchema = z.strictObject({
  id: z.string().min(1).max(64),
  name: z.string().min(1).max(120),
  items: z.array(outlineItem).max(5000),
});
export type OutlineText = z.infer<typeof outlineSchema>;
