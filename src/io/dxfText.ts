/** A DXF put right as far as it goes: entities that cannot be read are taken out and said, with the line of the file. */
export interface CheckedDxf { text: string; problems: string[] }

/** Codes whose value is a real number, and whose value is a whole number, by the exchange file's own ranges (from memory; ezdxf and the parser read what passes). */
const isReal = (c: number) => (c >= 10 && c <= 59) || (c >= 110 && c <= 149) || (c >= 210 && c <= 239) || (c >= 460 && c <= 469) || (c >= 1010 && c <= 1059);
const isWhole = (c: number) => (c >= 60 && c <= 79) || (c >= 90 && c <= 99) || (c >= 170 && c <= 179) || (c >= 270 && c <= 289) || (c >= 370 && c <= 389) || (c >= 400 && c <= 409) || (c >= 1060 && c <= 1071);
const MOST_SAID = 20;

/**
 * Goes through the pairs of code and value. An entity with a value that is no number, or a code that is no code, is left out;
 * a file that stops in the middle is ended. What is wrong is said with its line.
 */
export function checkDxf(text: string): CheckedDxf {
  const lines = text.split(/\r\n|\n|\r/), problems: string[] = [];
  const say = (line: number, what: string) => { if (problems.length < MOST_SAID) problems.push(`line ${line}: ${what}`); };
  // Text holds no zero bytes; the binary form does.
  if (text.includes('\0')) return { text: '', problems: ['the file is a binary DXF; save it as text (ASCII)'] };
  interface Part { lines: string[]; name: string; bad: boolean; at: number }
  const parts: Part[] = [];
  let section = '', expectSection = false, ended = false, i = 0;
  while (i + 1 < lines.length) {
    const code = lines[i].trim(), value = lines[i + 1] ?? '';
    if (code === '' && lines.slice(i).every((l) => l.trim() === '')) break;
    if (!/^-?\d{1,4}$/.test(code)) {
      say(i + 1, `${JSON.stringify(code.slice(0, 30))} is no group code; the rest of its ${parts.at(-1)?.name ?? 'part'} is left out`);
      if (parts.length) parts[parts.length - 1].bad = true;
      // On to the next entity: a code 0 with a name after it.
      i++;
      while (i + 1 < lines.length && !(lines[i].trim() === '0' && /^[A-Z0-9_]+$/.test(lines[i + 1].trim()) && /[A-Z]/.test(lines[i + 1]))) i++;
      continue;
    }
    const c = Number(code);
    if (c === 0) {
      parts.push({ lines: [], name: value.trim(), bad: false, at: i + 1 });
      expectSection = value.trim() === 'SECTION';
      if (value.trim() === 'ENDSEC') section = '';
      if (value.trim() === 'EOF') ended = true;
    } else if (expectSection && c === 2) { section = value.trim(); expectSection = false; }
    const part = parts[parts.length - 1];
    if (!part) { i += 2; continue; }
    const wrong = (isReal(c) && !/^[-+]?(\d+\.?\d*|\.\d+)([eE][-+]?\d+)?$/.test(value.trim())) || (isWhole(c) && !/^[-+]?\d+$/.test(value.trim()));
    if (wrong && (section === 'ENTITIES' || section === 'BLOCKS')) {
      say(i + 2, `${JSON.stringify(value.trim().slice(0, 30))} is no number (code ${c}); this ${part.name} is left out`);
      part.bad = true;
    } else part.lines.push(code, value);
    i += 2;
    if (ended) break;
  }
  if (!parts.some((p) => p.name === 'SECTION')) return { text: '', problems: [...problems, 'the file is no DXF that can be read: it has no SECTION'] };
  if (!ended) say(lines.length, 'the file stops before its EOF; what was there is read');
  // A structure that is cut short is closed, so that what stands before it can be read.
  const kept = parts.filter((p) => !p.bad || ['SECTION', 'ENDSEC', 'TABLE', 'ENDTAB', 'EOF'].includes(p.name));
  const out = kept.flatMap((p) => p.lines);
  if (!ended) {
    if (kept.at(-1)?.name !== 'ENDSEC') out.push('0', 'ENDSEC');
    out.push('0', 'EOF');
  }
  return { text: out.join('\n'), problems };
}
