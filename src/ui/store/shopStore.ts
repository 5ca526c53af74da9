"use client";
import { create } from "zustand";
import { noSettings, shopOf, type Shop, type ShopSettings } from "@/core/tables";

interface ShopState {
  settings: ShopSettings;
  shop: Shop;
  /** Takes what the server has of the shop. */
  have(settings: ShopSettings): void;
}

/** The shop's own figures, as this page has them from the server. */
export const useShop = create<ShopState>((set) => ({
  settings: noSettings,
  shop: shopOf(noSettings),
  have: (settings) => set({ settings, shop: shopOf(settings) }),
}));
