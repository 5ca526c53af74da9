import { z } from "zod";
import { findMaterial } from "./materials";

/** A material of the shop's own: its name, density in g/cm³, and where the figure comes from. */
const shopMaterialSchema = z.strictObject({
  name: z.string().trim().min(1).max(120),
  density: z.number().positive().max(30),
  source: z.string().trim().max(200),
});
export type ShopMaterial = z.infer<typeof shopMaterialSchema>;

/** The shop's list: every name once, none that the table has already. */
export const shopMaterialsSchema = z
  .array(shopMaterialSchema)
  .max(300)
  .superRefine((list, context) => {
    const seen = new Set<string>();
    list.forEach((m, i) => {
      const name = m.name.toLowerCase();
      if (seen.has(name)) context.addIssue({ code: "custom", path: [i, "name"], message: `${m.name} is there twice` });
      if (findMaterial(name))
        context.addIssue({ code: "custom", path: [i, "name"], message: `${m.name} is in the table already` });
      seen.add(name);
    });
  });
