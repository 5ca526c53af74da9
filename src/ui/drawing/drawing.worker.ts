import { readDrawing, type DrawingWish } from "@/io/drawing";

// Drawings come from anywhere: they are read here, where a file that takes for ever can be given up.
self.onmessage = (e: MessageEvent<DrawingWish>) => self.postMessage(readDrawing(e.data));
