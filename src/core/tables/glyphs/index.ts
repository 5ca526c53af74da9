import { mono } from './mono';
import { plain } from './plain';
import type { Font } from './font';

/** The shipped fonts, by the name a card gives them. */
export const fonts: Record<'plain' | 'mono', Font> = { plain, mono };
export type { Font };
