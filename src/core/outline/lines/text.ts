import { z } from "zod";
import type { Reader } from "../../grammar/reader";
import { numberText } from "../../number";
import { lettering } from "../letters";
import { added, n, place, readPlaced, standOf, writeIf, writeName, writePlaced, type OutlineLine } from "./common";

const schema = z.strictObject({
  item: z.literal("text"),
  text: z.string().min(1).max(200),
  height: numberText,
  font: z.enum(["plain", "mono"]),
  align: z.enum(["left", "middle", "right"]).optional(),
  /**
   * Round a circle of this diameter: outside reading clockwise, or inside reading counter-clockwise; `from` is
   * where its anchor stands.
   */
  around: z
    .strictObject({ diameter: numberText, from: numberText.optional(), inside: z.literal(true).optional() })
    .optional(),
  ...place,
});
type Text = z.infer<typeof schema>;

function readAround(r: Reader): NonNullable<Text["around"]> {
  const diameter = r.diameter("around.diameter");
  const from = r.take("FROM") ? { from: r.angle("around.from") } : {};
  return { diameter, ...from, ...(r.take("INSIDE") ? { inside: true as const } : {}) };
}

export const text: OutlineLine<Text> & { schema: typeof schema } = {
  schema,
  words: "TEXT",
  group: "shapes",
  examples: [
    {
      text: 'TEXT "A 12" HEIGHT 6 MIDDLE AT 0,0',
      inch: 'TEXT "A 12" HEIGHT .25 MIDDLE AT 0,0',
      what: "height of the capitals",
    },
    { text: 'TEXT "GAUGE" HEIGHT 4 AROUND ⌀50', inch: 'TEXT "GAUGE" HEIGHT .16 AROUND ⌀2', what: "round a circle" },
  ],
  read(r) {
    if (!r.take("TEXT")) return null;
    const said = r.quoted(200);
    if (!said.trim()) r.fail("the text in double quotes");
    r.want("HEIGHT");
    const t: Text = {
      item: "text",
      text: said,
      height: r.number("height", "the height of the capitals"),
      font: "plain",
    };
    for (;;) {
      const word = r.takeOne(["MONO", "PLAIN", "LEFT", "MIDDLE", "RIGHT", "AROUND"] as const);
      if (word === "MONO" || word === "PLAIN") t.font = word === "MONO" ? "mono" : "plain";
      else if (word === "AROUND") t.around = readAround(r);
      else if (word) t.align = word.toLowerCase() as NonNullable<Text["align"]>;
      else if (r.sees("AT") || r.sees("TURN")) Object.assign(t, readPlaced(r));
      else return t;
    }
  },
  write(i) {
    const a = i.around;
    const around = a ? ` AROUND ⌀${n(a.diameter)}${writeIf(" FROM ", a.from)}${a.inside ? " INSIDE" : ""}` : "";
    const style = `${i.font === "mono" ? " MONO" : ""}${i.align ? ` ${i.align.toUpperCase()}` : ""}`;
    return `TEXT ${writeName(i.text)} HEIGHT ${n(i.height)}${style}${around}${writePlaced(i)}`;
  },
  numbers(i, put) {
    put.length(i.height, "height");
    put.diameter(i.around?.diameter, "around", "diameter");
    put.angle(i.around?.from, "around", "from");
    put.placed(i);
  },
  apply(i, work) {
    const height = work.num(i.height, "length");
    const diameter = i.around ? work.num(i.around.diameter, "length") : 0;
    const top = i.around?.inside ? -Math.PI / 2 : Math.PI / 2;
    const start = i.around?.from === undefined ? top : work.num(i.around.from, "angle");
    if (height === null || diameter === null || start === null) return null;
    const around = i.around && { diameter, from: start, inside: Boolean(i.around.inside) };
    const align = i.align ?? (around ? "middle" : "left");
    const made = lettering({ text: i.text, height, font: i.font, align, ...(around ? { around } : {}) });
    return added(made, standOf(i, work), work);
  },
};
