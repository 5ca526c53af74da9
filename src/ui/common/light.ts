"use client";
import { create } from "zustand";

export type Light = "light" | "dark";
const read = (): Light => {
  if (typeof window === "undefined") return "light";
  const kept = window.localStorage.getItem("sgorbia-light");
  return kept === "dark" || kept === "light"
    ? kept
    : window.matchMedia("(prefers-color-scheme: dark)").matches
      ? "dark"
      : "light";
};

/** Paper or dark: what the person chose, else what the system says. */
export const useLight = create<{ light: Light; start(): void; turn(): void }>((set, get) => ({
  light: "light",
  start() {
    const light = read();
    document.documentElement.dataset.light = light;
    set({ light });
  },
  turn() {
    const light: Light = get().light === "dark" ? "light" : "dark";
    window.localStorage.setItem("sgorbia-light", light);
    document.documentElement.dataset.light = light;
    set({ light });
  },
}));
