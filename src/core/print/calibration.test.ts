import { judgePicks } from "./calibration";

const picked = (a: [number, number], b: [number, number], turn = 0) => {
  const r = judgePicks({ x: a[0], y: a[1] }, { x: b[0], y: b[1] }, turn);
  return r.ok ? r.value : null;
};

test("two picks lie along the axis they are nearer to, as the page is read", () => {
  expect(picked([0.1, 0.2], [0.8, 0.2])?.direction).toBe("x");
  expect(picked([0.1, 0.2], [0.1, 0.9])?.direction).toBe("y");
  expect(picked([0.1, 0.2], [0.8, 0.2], 1)?.direction).toBe("y");
  expect(picked([0.1, 0.2], [0.1, 0.9], 3)?.direction).toBe("x");
  expect(picked([0.8, 0.2], [0.1, 0.2], 2)?.direction).toBe("x");
});

test("a tilt is said from half a degree on", () => {
  const at = (degrees: number) =>
    picked([0, 0], [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)]);
  expect(at(0.45)?.askew).toBe(false);
  expect(at(0.55)?.askew).toBe(true);
  expect(at(90.55)?.askew).toBe(true);
  expect(at(180.4)?.askew).toBe(false);
  expect((at(3)!.tilt * 180) / Math.PI).toBeCloseTo(3, 9);
});

test("one place picked twice is refused, with what to pick instead", () => {
  const r = judgePicks({ x: 0.5, y: 0.5 }, { x: 0.5005, y: 0.5005 }, 0);
  expect(r.ok).toBe(false);
  if (!r.ok) expect(r.problems[0]).toMatchObject({ message: "a and b are the same place" });
});
