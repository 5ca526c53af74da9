import { placeOf, searchOf } from "./place";
import { steps } from "./benchStore";

test("every place comes back from its own address", () => {
  for (const step of steps)
    for (const row of [null, "r12"]) expect(placeOf(searchOf({ step, row }))).toEqual({ step, row });
});

test("an address that says nothing, or nonsense, is the Shape step", () => {
  const shape = { step: "shape", row: null };
  expect(placeOf("")).toEqual(shape);
  expect(placeOf("?step=harbour&row=")).toEqual(shape);
  expect(placeOf("?step=constructor")).toEqual(shape);
  expect(placeOf(`?row=${"x".repeat(80)}`)).toEqual(shape);
  expect(placeOf("?row=<b>")).toEqual(shape);
});
