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
