/** Browsers draw no larger pictures. */
const LARGEST_SIDE = 16_000;
const LEAST_SCALE = 0.5;

export interface SvgPicture {
  svg: string;
  width: number;
  height: number;
}

/** A picture of points, twice as many as pixels where there is room. @throws where it is too long for one */
export async function pngOf({ svg, width, height }: SvgPicture): Promise<Blob> {
  const scale = Math.min(2, LARGEST_SIDE / height, LARGEST_SIDE / width);
  if (scale < LEAST_SCALE) throw new Error('the weave is too long for a PNG; take it as SVG, or show less of it');
  const url = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const canvas = Object.assign(document.createElement('canvas'), { width: Math.round(width * scale), height: Math.round(height * scale) });
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
    return await new Promise<Blob>((resolve, reject) =>
      canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('the browser could not draw it'))), 'image/png'),
    );
  } finally {
    URL.revokeObjectURL(url);
  }
}
