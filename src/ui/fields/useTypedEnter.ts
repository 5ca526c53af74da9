"use client";
import { useRef, type KeyboardEvent } from "react";

/**
 * Enter in a field that offers names takes what was typed. The list of names has its first one at hand as soon as it
 * begins like the text, and would put it in its place: Enter is for it only once the arrows have gone there.
 * @param take what Enter does with what was typed
 * @returns what stands round the field
 */
export function useTypedEnter(take: (field: HTMLInputElement) => void) {
  const isChosen = useRef(false);
  const onKeyDownCapture = (e: KeyboardEvent<HTMLElement>) => {
    if (e.key === "ArrowDown" || e.key === "ArrowUp") isChosen.current = true;
    else if (e.key !== "Enter") isChosen.current = false;
    else if (!isChosen.current && e.target instanceof HTMLInputElement) {
      e.preventDefault();
      e.stopPropagation();
      take(e.target);
    }
  };
  return { onKeyDownCapture };
}
