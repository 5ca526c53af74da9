import { FROM_MEMORY, sheetPage } from "./page";

export const tSlotPage = sheetPage({
  id: "tSlot",
  title: "T-slots",
  standard: "ISO 299-1",
  source: FROM_MEMORY,
  example: "T-slot 14",
  names: ["ISO 299-1", "ISO 299", "T-SLOT", "T SLOT", "TSLOT", "DIN 650"],
  columns: [
    "slotWidth",
    "headWidthMin",
    "headWidthMax",
    "headHeightMin",
    "headHeightMax",
    "depthMin",
    "depthMax",
    "bolt",
  ],
  unit: 1,
  text: `5 5 10 11 3.5 4.5 8 10 4
  6 6 11 12.5 5 6 11 13 5
  8 8 14.5 16 7 8 15 18 6
  10 10 16 18 7 8 17 21 8
  12 12 19 21 8 9 20 25 10
  14 14 23 25 9 11 23 28 12
  18 18 30 32 12 14 30 36 16
  22 22 37 40 16 18 38 45 20
  28 28 46 50 20 22 48 56 24
  36 36 56 60 25 28 61 71 30
  42 42 68 72 32 35 74 85 36
  48 48 80 85 36 40 84 95 42
  54 54 90 95 40 44 94 106 48`,
});
