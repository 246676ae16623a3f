/**
 * The palette: plant dyes on undyed linen, or on deep indigo. One file for the whole look; contrast of every text colour
 * on `linen` and `paper` is at least 4.5:1 in both themes. `undyed` is for marks only, never for text.
 */
export const LIGHT = {
  linen: '#F4EFE6',
  paper: '#FDFBF6',
  seam: '#E2DACB',
  strongSeam: '#CFC4B0',
  ink: '#23262F',
  softInk: '#635F58',
  undyed: '#A69F92',
  indigo: '#2B3D7C',
  indigoWash: '#E3E6F1',
  woad: '#237078',
  weld: '#7F5A00',
  weldWash: '#F6EBC9',
  madder: '#A3302C',
  madderWash: '#F6DFD9',
  heather: '#6C5394',
  walnut: '#6A4932',
} as const;
export const DARK: Record<keyof typeof LIGHT, string> = {
  linen: '#151827',
  paper: '#1B1F31',
  seam: '#2C3148',
  strongSeam: '#414765',
  ink: '#E9E5DA',
  softInk: '#A9A6A0',
  undyed: '#6E6C74',
  indigo: '#93A5EE',
  indigoWash: '#252C4B',
  woad: '#6CBFC2',
  weld: '#E0B84A',
  weldWash: '#3B3420',
  madder: '#EE8479',
  madderWash: '#43252A',
  heather: '#B9A1E0',
  walnut: '#C69F80',
};
const kebab = (name: string): string => name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
/** The palette as custom properties of CSS: `--ink`, `--strong-seam`, … */
export const properties = (palette: Record<string, string>): string =>
  Object.entries(palette)
    .map(([name, value]) => `--${kebab(name)}:${value}`)
    .join(';');
