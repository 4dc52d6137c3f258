/** Hands a file to the browser's downloads. */
export function saveFile(name: string, data: Blob): void {
  const href = URL.createObjectURL(data);
  saveFrom(href, name);
  URL.revokeObjectURL(href);
}

/** Downloads what lies at an address; without a name, under the one that the server gives it. */
export function saveFrom(href: string, name = ''): void {
  const link = document.createElement('a');
  link.href = href;
  link.download = name;
  link.click();
}

/** A name that every file system takes. */
export const fileName = (title: string): string =>
  title
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-|-$/g, '');

/** A drawing as a stand-alone SVG document: size, background and the colours of its styles written into it. */
export function svgText(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const { width, height } = svg.getBoundingClientRect();
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(height));
  const originals = [svg, ...svg.querySelectorAll('*')];
  [copy, ...copy.querySelectorAll('*')].forEach((element, i) => {
    const style = getComputedStyle(originals[i]);
    for (const name of [
      'fill',
      'stroke',
      'stroke-width',
      'stroke-dasharray',
      'font-family',
      'font-size',
      'opacity',
      'visibility',
    ]) {
      const value = style.getPropertyValue(name);
      if (value && element instanceof SVGElement) element.style.setProperty(name, value);
    }
  });
  copy.querySelectorAll('foreignObject').forEach((element) => element.remove());
  const ground = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  ground.setAttribute('width', '100%');
  ground.setAttribute('height', '100%');
  ground.setAttribute('fill', getComputedStyle(document.documentElement).getPropertyValue('--panel').trim());
  copy.insertBefore(ground, copy.firstChild);
  return new XMLSerializer().serializeToString(copy);
}

/** A stand-alone SVG document as pixels. */
export async function pngOfText(svg: string, width: number, height: number): Promise<Blob> {
  const url = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const canvas = document.createElement('canvas');
    canvas.width = width;
    canvas.height = height;
    canvas.getContext('2d')?.drawImage(image, 0, 0, width, height);
    return await new Promise<Blob>((resolve, reject) => {
      canvas.toBlob(
        (blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be made.'))),
        'image/png',
      );
    });
  } finally {
    URL.revokeObjectURL(url);
  }
}
