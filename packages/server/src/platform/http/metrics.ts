/** A figure in the OpenMetrics text format (an IETF draft, version 1.0.0), with one sample for each set of labels. */
export interface Metric {
  /** Without the ending that a counter has. */
  name: string;
  type: 'gauge' | 'counter';
  help: string;
  samples: readonly { labels?: Readonly<Record<string, string>>; value: number }[];
}

export function openMetrics(metrics: readonly Metric[]): string {
  const lines = metrics.flatMap(({ name, type, help, samples }) => [
    `# TYPE ${name} ${type}`,
    `# HELP ${name} ${escaped(help)}`,
    ...samples.map(({ labels = {}, value }) => `${name}${type === 'counter' ? '_total' : ''}${labelled(labels)} ${value}`),
  ]);
  return [...lines, '# EOF', ''].join('\n');
}

const escaped = (text: string): string => text.replaceAll('\\', '\\\\').replaceAll('\n', '\\n').replaceAll('"', '\\"');
function labelled(labels: Readonly<Record<string, string>>): string {
  const parts = Object.entries(labels).map(([name, value]) => `${name}="${escaped(value)}"`);
  return parts.length === 0 ? '' : `{${parts.join(',')}}`;
}
