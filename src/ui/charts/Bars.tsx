"use client";
import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip } from "chart.js";
import { useEffect, useRef } from "react";
import { useLight } from "../common/light";
import css from "./Charts.module.css";

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);

/** One bar: its name, its figure, and the figure as it is shown. */
export interface Bar {
  name: string;
  value: number;
  shown: string;
  /** Out of its limits: in vermilion. */
  wrong?: boolean;
}
interface Props {
  title: string;
  bars: Bar[];
  /** Ends of the scale where the bars do not give them. */
  ends?: [number, number];
}

const LINE = 17;

/** Lying bars, one a line, the largest as long as there is room: to be looked at; the figures stand beside them. */
export function Bars({ title, bars, ends }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const light = useLight((s) => s.light);
  const key = JSON.stringify([bars, ends]);
  useEffect(() => {
    if (!canvas.current) return;
    const [shown, scale] = JSON.parse(key) as [Bar[], [number, number] | undefined];
    const tokens = getComputedStyle(document.documentElement);
    const ink = (name: string) => tokens.getPropertyValue(name).trim();
    const font = { family: ink("--cond"), size: 12 };
    const chart = new Chart(canvas.current, {
      type: "bar",
      data: {
        labels: shown.map((b) => `${b.name}  ${b.shown}`),
        datasets: [
          {
            data: shown.map((b) => b.value),
            backgroundColor: shown.map((b) => ink(b.wrong ? "--vermilion" : "--steel-dark")),
            barThickness: 8,
            minBarLength: 1,
          },
        ],
      },
      options: {
        indexAxis: "y",
        animation: false,
        maintainAspectRatio: false,
        plugins: { tooltip: { enabled: false } },
        scales: {
          x: {
            ...(scale && { min: scale[0], max: scale[1] }),
            grid: { color: ink("--rule"), drawTicks: false },
            border: { display: false },
            ticks: { display: false, maxTicksLimit: 5 },
          },
          y: {
            grid: { display: false },
            border: { color: ink("--rule-strong") },
            ticks: { color: ink("--ink-2"), font, crossAlign: "far", autoSkip: false, padding: 6 },
          },
        },
      },
    });
    // A canvas asks for no face by itself, and keeps what it was first written with.
    let live = true;
    document.fonts.load(`${font.size}px ${font.family}`).then(
      () => {
        if (live) chart.update();
      },
      () => {},
    );
    return () => {
      live = false;
      chart.destroy();
    };
  }, [key, light]);
  if (!bars.length) return null;
  return (
    <figure className={css.figure}>
      <figcaption className="lab">{title}</figcaption>
      <div style={{ height: bars.length * LINE + 22 }}>
        <canvas
          ref={canvas}
          role="img"
          aria-label={`${title}: ${bars.map((b) => `${b.name} ${b.shown}`).join(", ")}`}
        />
      </div>
    </figure>
  );
}
