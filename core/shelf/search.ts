import { parseQuantity } from '../quantity/parse';
import { SHELF, type ShelfItem, type ShelfSize, type SizeRole } from './items';

/**
 * Finds standard things by name, by number, or by both: “hole for M4”, “5.5 across flats”, “22 outside 8
 * bore 7 wide”, “13.08 and 19 turns an inch”.
 */
export interface Found {
  item: ShelfItem;
  /** The sizes that matched a number, each with the number asked for. */
  matched: { size: ShelfSize; asked: number }[];
  /** 0 is exact; otherwise each number's distance relative to the largest that still counts as equal. */
  distance: number;
}

interface AskedNumber {
  value: number;
  role: SizeRole | null;
  /** As typed: “608” may be a name. */
  text: string;
}

interface Question {
  numbers: AskedNumber[];
  words: string[];
}

const ROLE_WORDS: [RegExp, SizeRole][] = [
  [/^(outside|outer|od|male|head)$/, 'outside'],
  [/^(inside|inner|id|bore|hole|drill|female)$/, 'inside'],
  [/^(wide|width|thick|thickness|high|height|tall|cord)$/, 'width'],
  [/^(flats|af|flat|spanner|wrench|key)$/, 'flats'],
  [/^(corners|corner)$/, 'corners'],
  [/^(pitch)$/, 'pitch'],
];
const NOISE = new Set(
  'what which standard thing is a an the of and by with in x for across that has it to mm find my i need do does or on'.split(
    ' ',
  ),
);
const TURNS =
  /((?:\d+\s+)?\d+\/\d+|[\d.,]+)\s*(?:tpi\b|turns?\s*(?:an|per|\/|to the)\s*inch|threads?\s*(?:an|per|\/)\s*inch)/gi;
/** Designations stay whole: M4, M10x1.25, 1/4-20, G 1/4, 608-2RS, #10, -014, DN20. */
const NAME =
  /^(m\d+([.,]\d+)?(x\d+([.,]\d+)?)?|st\d.*|tr\d.*|dn\d+|g|r|rc|npt|nh|un[cf]|unef|\d+ba|#\d+.*|\d+(-\d+)?\/\d+-\d.*|-\d{3}|mr\d.*|\d{3,5}-?(2rs\w*|zz|2z|rs)|[a-z][\w-]*)$/i;

export function understandQuestion(text: string): Question {
  const numbers: AskedNumber[] = [];
  let rest = text
    .toLowerCase()
    .replace(/[,;]\s|\?|“|”/g, ' ')
    .replace(/×/g, 'x');
  rest = rest.replace(TURNS, (_, turns: string) => {
    const read = parseQuantity(turns.trim(), 'count');
    if (read.ok && read.quantity.value > 0)
      numbers.push({ value: 25.4 / read.quantity.value, role: 'pitch', text: '' });
    return ' ';
  });
  // "22x8x7" is three numbers.
  rest = rest.replace(/(\d)x(?=\d)/g, (all, _digit, at: number) =>
    /(^|\s)(m|tr)[\d.]*\d$/.test(rest.slice(0, at + 1)) ? all : all.replace('x', ' '),
  );
  const tokens = rest.split(/\s+/).filter(Boolean);
  const words: string[] = [];
  let waiting: SizeRole | null = null;
  for (let i = 0; i < tokens.length; i++) {
    const token = tokens[i]!;
    const role = ROLE_WORDS.find(([pattern]) => pattern.test(token))?.[1];
    if (role) {
      // “22 outside” describes the number before it, “bore 8” the one after it.
      const last = numbers.at(-1);
      if (last && last.role === null && wasNumber(tokens, i)) last.role = role;
      else waiting = role;
      words.push(token);
      continue;
    }
    const typed = numberAt(tokens, i);
    if (typed) {
      numbers.push({ value: typed.value, role: waiting, text: typed.more === 0 ? token : '' });
      waiting = null;
      i += typed.more;
    } else if (!NOISE.has(token)) words.push(token);
  }
  return { numbers, words };
}

/** A number, its fraction and its unit may be separate tokens: “1 1/4 in”. */
function numberAt(tokens: string[], i: number): { value: number; more: number } | null {
  // "g 1/4" and "1/4 npt" are names.
  if (/^(g|r|rc|#)$/.test(tokens[i - 1] ?? '') || /^(npt|nps|unc|unf|bsp)/.test(tokens[i + 1] ?? ''))
    return null;
  for (const more of [2, 1, 0]) {
    const text = tokens.slice(i, i + 1 + more).join(' ');
    const read = tokens.length > i + more ? parseQuantity(text, 'length') : null;
    if (read?.ok && read.quantity.value > 0) return { value: read.quantity.value, more };
  }
  return null;
}

/** Only fillers between the last number and here: “5.5 across flats”. */
function wasNumber(tokens: string[], i: number): boolean {
  for (let j = i - 1; j >= 0; j--) {
    if (/^[\d.,/]/.test(tokens[j]!)) return true;
    if (!NOISE.has(tokens[j]!) && !/^(in|mm|cm|")$/.test(tokens[j]!)) return false;
  }
  return false;
}

/** How far a size may differ from the number asked for: its tolerance, a reading's uncertainty, and a little more. */
const reach = (size: ShelfSize) => Math.max(size.tolerance, 0.06, 0.006 * size.value) + 0.04;
const MOST = 60;

export function searchShelf(text: string, drawer?: string): Found[] {
  const question = understandQuestion(text);
  const { numbers, words } = question;
  if (numbers.length === 0 && words.length === 0)
    return SHELF.filter(i => !drawer || i.family === drawer)
      .slice(0, drawer ? 400 : MOST)
      .map(plainFind);
  const found: Found[] = [];
  for (const item of SHELF) {
    if (drawer && item.family !== drawer) continue;
    const match = matchNumbers(item, numbers);
    if (!match) continue;
    const missing = words.filter(w => !hasWord(item, w)).length;
    // Words that speak of sizes only (“wide”) need not stand in a name; a designation must.
    if (words.some(w => NAME.test(w) && /\d/.test(w) && !hasWord(item, w))) continue;
    if (numbers.length === 0 && missing > 0) continue;
    found.push({ item, matched: match.matched, distance: match.distance + 0.6 * missing });
  }
  return found
    .sort((a, b) => a.distance - b.distance || nameRank(a, words) - nameRank(b, words))
    .slice(0, MOST);
}

const plainFind = (item: ShelfItem): Found => ({ item, matched: [], distance: 0 });

/** Every number asked for must be one of the item's sizes, each size used once. */
function matchNumbers(
  item: ShelfItem,
  numbers: AskedNumber[],
): { matched: Found['matched']; distance: number } | null {
  const matched: Found['matched'] = [];
  let distance = 0;
  for (const { value, role, text } of numbers) {
    if (role === null && text !== '' && named(item, text)) continue;
    const near = item.sizes
      .filter(s => (role === null || s.role === role) && !matched.some(m => m.size === s))
      .map(s => ({ size: s, away: Math.abs(s.value - value) }))
      .filter(s => s.away <= reach(s.size))
      .sort((a, b) => a.away - b.away)[0];
    if (!near) return null;
    matched.push({ size: near.size, asked: value });
    distance += near.away / (0.1 + 0.006 * value);
  }
  // Of items that match the same numbers, the one with fewer other sizes is closer to what was asked for.
  return {
    matched,
    distance: distance + 0.02 * (item.sizes.length - matched.length) * Math.min(1, numbers.length),
  };
}

/** A number that is a name: bearing 608, O-ring 014, conduit 25. */
const named = (item: ShelfItem, text: string) => ` ${item.words} `.includes(` ${text} `);

/** Each item's words between spaces, made once: they are searched at every key press. */
const PADDED = new Map(
  SHELF.map(item => [item, ` ${`${item.words} ${item.name.toLowerCase()}`.replace(/[(),]/g, ' ')} `]),
);

function hasWord(item: ShelfItem, word: string): boolean {
  const plain = word.replace(/s$/, '');
  const padded = PADDED.get(item)!;
  if (/\d/.test(word))
    return padded.includes(` ${word} `) || padded.includes(` ${word.replace(/-?(2rs\w*|zz|2z|rs)$/, '')} `);
  return padded.includes(` ${plain}`);
}

/** A name that equals what was typed comes before longer ones. */
const nameRank = ({ item }: Found, words: string[]) => {
  const name = item.name.toLowerCase();
  const typed = words.join(' ');
  return (name === typed ? 0 : name.startsWith(typed) ? 1 : 2) * 100 + name.length;
};

/** Drawers whose items occur as objects or seats; a screw's head is seldom what a cap goes on. Practice. */
const MET: Record<'outside' | 'inside', Record<string, readonly SizeRole[]>> = {
  outside: {
    Bearings: ['outside'],
    'Pipes and hoses': ['outside'],
    Nuts: ['flats'],
    Threads: ['outside'],
  },
  inside: { Bearings: ['inside', 'outside'], 'Clearance holes': ['inside'], 'Pipes and hoses': ['inside'] },
};

/** Standard items that a measured size could be, at most one of each drawer, within the reading's uncertainty. */
export function nearStandard(value: number, doubt: number, kind: 'outside' | 'inside'): Found[] {
  const best = new Map<string, Found>();
  for (const item of SHELF) {
    const roles = MET[kind][item.family];
    if (!roles || (item.family === 'Threads' && !COMMON_THREAD.test(item.name))) continue;
    for (const s of item.sizes) {
      const away = Math.abs(s.value - value);
      const allowed = doubt + Math.min(s.tolerance, 0.15) + 0.02;
      if (!roles.includes(s.role) || away > allowed) continue;
      const rarity = item.family === 'Bearings' && !COMMON_BEARING.test(item.name) ? 1 : 0;
      const found = { item, matched: [{ size: s, asked: value }], distance: away / allowed + rarity };
      if (found.distance < (best.get(item.family)?.distance ?? Infinity)) best.set(item.family, found);
      break;
    }
  }
  return [...best.values()].sort((a, b) => a.distance - b.distance);
}

/** Without a pitch only the usual ones are worth mentioning. */
const COMMON_THREAD = /^(M\d+|G .*)$/;
/** Bearings that every workshop has. Common practice, no source. */
const COMMON_BEARING = /^bearing (608|62[3-6]|68[3-8]ZZ|6[023]0\d)$/;
