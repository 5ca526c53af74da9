import { v3 } from "@/core/geometry/vec";
import { onLathe } from "@/core/setups/lathe";
import { areaFigure, bulkFigure, distance, lengthFigure } from "./figures";

describe("figures of the readout", () => {
  it("have as many decimals as a machine shows, and no minus before nothing", () => {
    expect(lengthFigure(25.4, "in")).toBe("1.0000");
    expect(lengthFigure(-12.7, "in")).toBe("-0.5000");
    expect(lengthFigure(-0.00001, "mm")).toBe("0.000");
    expect(lengthFigure(1234.5, "mm")).toBe("1234.500");
  });
  it("are in the unit's own measures", () => {
    expect(bulkFigure(25.4 ** 3, "in")).toBe("1.000");
    expect(bulkFigure(12_345, "mm")).toBe("12.345");
    expect(areaFigure(25.4 ** 2, "in")).toBe("1.000");
  });
  it("read X as a diameter on a lathe, and distances in space", () => {
    expect(onLathe(v3(3, 4, 7))).toEqual(v3(10, 0, 7));
    expect(distance(v3(1, 2, 3), v3(3, 5, 9))).toBeCloseTo(7, 12);
  });
});
