"use client";
import { useState, type KeyboardEvent } from "react";
import type { Offer } from "./numberOffers";

/**
 * A list of offers under a field, walked by arrows.
 * @param draft the text being typed: an offer that stands there already is not taken again
 */
export function useOffers(offers: Offer[], draft: string, choose: (offer: Offer) => void) {
  const [at, setAt] = useState(0);
  const taken = offers.some((o) => o.whole === draft);
  const take = (offer: Offer) => {
    choose(offer);
    setAt(0);
  };
  /** @returns whether the key was for the list */
  const onKey = (e: KeyboardEvent): boolean => {
    if (!offers.length) return false;
    const step = { ArrowDown: 1, ArrowUp: offers.length - 1 }[e.key];
    const chosen = (e.key === "Enter" || e.key === "Tab") && !taken;
    if (step === undefined && !chosen) return false;
    e.preventDefault();
    if (step === undefined) take(offers[Math.min(at, offers.length - 1)]);
    else setAt((at + step) % offers.length);
    return true;
  };
  return { at, take, onKey, restart: () => setAt(0) };
}
