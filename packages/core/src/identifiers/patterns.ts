/** Longest pattern, in characters. */
const LONGEST = 300;

/**
 * Why a pattern may not be used, or null if it may. Only a subset runs in linear time on the ready-made engine:
 * no group that repeats while something inside it repeats too, no back-references, no look-around.
 */
export function patternProblem(pattern: string): string | null {
  if (pattern.length === 0) return 'the pattern is empty';
  if (pattern.length > LONGEST) return `the pattern is longer than ${LONGEST} characters`;
  try {
    new RegExp(pattern);
  } catch (error) {
    return (error as Error).message;
  }
  if (new RegExp(`^(?:${pattern})$`).test('')) return 'the pattern matches nothing at all, so it would match everywhere';
  if (/\\[1-9]|\\k</.test(pattern)) return 'back-references are not allowed';
  if (/\(\?(?:=|!|<=|<!)/.test(pattern)) return 'look-around is not allowed; boundaries are checked anyway';
  return nestedRepeat(pattern) ? 'a repeated group may not hold a repetition: write it flat' : null;
}

function nestedRepeat(pattern: string): boolean {
  const repeats: boolean[] = [false];
  let inClass = false;
  for (let i = 0; i < pattern.length; i++) {
    const char = pattern[i]!;
    if (char === '\\') i++;
    else if (inClass) inClass = char !== ']';
    else if (char === '[') inClass = true;
    else if (char === '(') repeats.push(false);
    else if (char === ')') {
      const inner = repeats.pop() ?? false;
      const next = pattern[i + 1] ?? '';
      const repeated = next === '*' || next === '+' || (next === '{' && !/^\{\d+\}/.test(pattern.slice(i + 1)));
      if (inner && repeated) return true;
      if (inner || repeated) repeats[repeats.length - 1] = true;
    } else if (char === '*' || char === '+' || (char === '{' && !/^\{\d+\}/.test(pattern.slice(i)))) repeats[repeats.length - 1] = true;
  }
  return false;
}

/** The literal text that every match begins with; empty where there is none. A cheap first look on the hot path. */
export function literalPrefix(pattern: string): string {
  let prefix = '';
  for (let i = 0; i < pattern.length; i++) {
    const char = pattern[i]!;
    if (/[A-Za-z0-9:=/@_ -]/.test(char)) prefix += char;
    else if (char === '\\' && /[.:/+-]/.test(pattern[i + 1] ?? '')) prefix += pattern[++i]!;
    else {
      if (char === '?' || char === '*' || char === '{') prefix = prefix.slice(0, -1);
      break;
    }
  }
  return pattern.includes('|') ? '' : prefix;
}
