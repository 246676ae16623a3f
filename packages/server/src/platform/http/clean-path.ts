/** A path below the imported folder: no root, no steps upwards, no control characters. */
export function cleanPath(path: string): string {
  const parts = path
    .replaceAll('\\', '/')
    .split('/')
    .map((part) => part.replace(/[\u0000-\u001f\u007f]/g, ''))
    .filter((part) => part !== '' && part !== '.' && part !== '..');
  return parts.join('/').slice(-400) || 'unnamed';
}
