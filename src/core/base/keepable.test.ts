import fc from "fast-check";
import { z } from "zod";
import { allKeepable, keepable, unkeepable, unkeepableIn } from "./keepable";

describe("text that can be kept", () => {
  it.each([
    ["\u0000", "U+0000", 0],
    ["slot\u0000", "U+0000", 4],
    ["a\ud800b", "U+D800", 1],
    ["\udc00", "U+DC00", 0],
    ["😀\udbff", "U+DBFF", 2],
  ])("%j has %s at %s", (text, character, at) => {
    expect(unkeepableIn(text)).toEqual({ character, at });
    expect(allKeepable(z.string()).safeParse(text).success).toBe(false);
  });
  it.each(["", "⌀ 5", "😀", "\u0001\n\t", "\ufffd"])("%j is kept as it is", (text) => {
    expect(unkeepableIn(text)).toBeNull();
    expect(keepable(text)).toBe(text);
  });
  it("is looked for in every depth, keys too, and names the place", () => {
    expect(unkeepable({ rows: [{ name: "ok" }, { name: "a\u0000" }] })?.path).toEqual(["rows", 1, "name"]);
    expect(unkeepable([{ "k\u0000": 1 }])?.character).toBe("U+0000");
    expect(unkeepable({ a: null, b: 2, c: undefined })).toBeNull();
  });
  it("is made of anything, and what could be kept stays the very same", () => {
    fc.assert(
      fc.property(fc.anything(), (data) => {
        expect(unkeepable(keepable(data))).toBeNull();
      }),
      { numRuns: 200 },
    );
    expect(keepable({ name: "a\u0000b", n: [1, "\ud800"] })).toEqual({ name: "a\ufffdb", n: [1, "\ufffd"] });
    const whole = { a: ["b"] };
    expect(keepable(whole)).toBe(whole);
  });
});
