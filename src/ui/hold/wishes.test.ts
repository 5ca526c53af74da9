import { readCard } from "@/core/callout";
import { toNumberText } from "@/core/number";
import { emptyForm, wishesOf, type AssistantForm } from "./wishes";

const { job, document } = readCard(["UNIT in", "LEAVE BLOCK 4 X 2.5 X .75"].join("\n"));
const wishes = (kind: "jaws" | "plate" | "chuck", form: Partial<AssistantForm> = {}) =>
  wishesOf({ ...emptyForm, ...form }, kind, { ...document, setups: [] }, job);

describe("what an assistant is told of its form", () => {
  it("is nothing but the choices where nothing was typed", () => {
    expect(wishes("jaws")).toEqual({});
    expect(wishes("jaws", { placement: "wall" })).toEqual({ placement: "wall" });
    expect(wishes("chuck")).toEqual({});
    expect(wishes("plate")).toEqual({ pitch: { x: 0, y: 0 }, stations: { x: 1, y: 1 } });
  });
  it("is figures in millimetres, and what is no figure is not said", () => {
    const numbers = { grip: toNumberText(".125"), clearance: toNumberText("soon"), spacer: toNumberText("") };
    expect(wishes("chuck", { numbers })).toEqual({ grip: 3.175 });
  });
  it("of a plate in a row serves every setup instead of counting stations", () => {
    const form = { ...emptyForm, serial: true, clamps: "1/4-20" };
    const setups = [10, 20].map((op) => ({ ...document.setups[0], op }));
    expect(wishesOf(form, "plate", { ...document, setups }, job)).toEqual({
      pitch: { x: 0, y: 0 },
      serves: [10, 20],
      clamps: "1/4-20",
    });
  });
});
