"use client";
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  LinearScale,
  Tooltip,
  type ChartConfiguration,
} from "chart.js";
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

/** The page's inks and faces by the names of the tokens. */
function inkOf(token: string): string {
  return getComputedStyle(document.documentElement).getPropertyValue(token).trim();
}

const LABEL = 12;

/** What the chart library is told of the bars. */
function configuration(bars: Bar[], ends: Props["ends"]): ChartConfiguration<"bar"> {
  return {
    type: "bar",
    data: {
      labels: bars.map((b) => `${b.name}  ${b.shown}`),
      datasets: [
        {
          data: bars.map((b) => b.value),
          backgroundColor: bars.map((b) => inkOf(b.wrong ? "--vermilion" : "--steel-dark")),
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
          ...(ends && { min: ends[0], max: ends[1] }),
          grid: { color: inkOf("--rule"), drawTicks: false },
          border: { display: false },
          ticks: { display: false, maxTicksLimit: 5 },
        },
        y: {
          grid: { display: false },
          border: { color: inkOf("--rule-strong") },
          ticks: {
            color: inkOf("--ink-2"),
            font: { family: inkOf("--cond"), size: LABEL },
            crossAlign: "far",
            autoSkip: false,
            padding: 6,
          },
        },
      },
    },
  };
}

/** Keeps a chart of the bars on a canvas, anew when they or the light change. */
function useChart(bars: Bar[], ends: Props["ends"]) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const light = useLight((s) => s.light);
  const key = JSON.stringify([bars, ends]);
  useEffect(() => {
    if (!canvas.current) return;
    const [shown, scale] = JSON.parse(key) as [Bar[], Props["ends"]];
    const chart = new Chart(canvas.current, configuration(shown, scale ?? undefined));
    // A canvas asks for no face by itself, and keeps what it was first written with.
    let live = true;
    document.fonts.load(`${LABEL}px ${inkOf("--cond")}`).then(
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
  return canvas;
}

/** Lying bars, one a line, the largest as long as there is room: to be looked at; the figures stand beside them. */
export function Bars({ title, bars, ends }: Props) {
  const canvas = useChart(bars, ends);
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
