import { readCard } from "../callout";
import { mm } from "../../../tests/helpers/card";

const long = (n: number) => "x".repeat(n);

describe("what is longer than can be kept", () => {
  it.each([
    ["a text", (n: number) => [`OUTLINE "t"`, `TEXT "${long(n)}" HEIGHT 3`, "END"], 200],
    ["an outline's name", (n: number) => [`OUTLINE "${long(n)}"`, "RECTANGLE 5 X 5", "END"], 120],
    ["a plane's name", (n: number) => [`PLANE "${long(n)}" OFFSET 6 FROM TOP`], 120],
    ["a material", (n: number) => [`MATERIAL "${long(n)}"`], 120],
  ])("%s is refused where it stands, and never cut short", (_, card, most) => {
    expect(readCard(mm(...card(most))).errors).toEqual([]);
    const [error] = readCard(mm(...card(most + 1))).errors;
    expect(error.message).toContain(`${most + 1} letters`);
    expect(error.expected).toBe(`at most ${most} letters`);
  });
});
