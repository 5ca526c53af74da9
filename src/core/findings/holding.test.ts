import { isAboutHolding, withOneGrip } from "./holding";

const remark = (rule: string, fix?: string) => ({ rule, ...(fix ? { fix } : {}) });

test("a grip is offered once, and what else is offered stays", () => {
  const told = [remark("grip-too-shallow", "grip .062"), remark("cut-into-jaw", "grip less")];
  const fixes = (own: ReturnType<typeof remark>[]) => withOneGrip(told, own).map((f) => f.fix);
  expect(fixes([remark("grip-area", "grip .3287")])).toEqual([undefined, "grip less"]);
  expect(fixes([remark("grip-area")])).toEqual(["grip .062", "grip less"]);
  expect(fixes([])).toEqual(["grip .062", "grip less"]);
  expect(["grip-area", "grip-refused", "thin-wall"].map(isAboutHolding)).toEqual([true, true, false]);
});
