import { nameText } from "../base/name";
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
  name: nameText.min(1),
  items: z.array(outlineItem).max(5000),
});
export type OutlineText = z.infer<typeof outlineSchema>;

/** Lines that treat corners; they can be switched off, for whoever wants the outline as it is dimensioned. */
type CornerLine = Extract<OutlineItem, { item: "corners" | "fullRound" }>;
export const treatsCorners = (i: OutlineItem): i is CornerLine => i.item === "corners" || i.item === "fullRound";
/** An outline's lines with all that treat corners switched on or off. */
export const switchedCorners = (items: OutlineItem[], on: boolean): OutlineItem[] =>
  items.map((it) => {
    if (!treatsCorners(it)) return it;
    const { off: _, ...rest } = it;
    return on ? rest : { ...rest, off: true as const };
  });
