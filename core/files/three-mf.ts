import { strToU8, zipSync } from 'fflate';
import type { TriangleMesh } from '../shape/mesh/mesh';
import { partPicture } from './part-picture';

/** A zip needs a date; a fixed one keeps equal parts byte-equal. */
const NO_DATE = new Date(Date.UTC(2000, 0, 1, 12));

export interface ThreeMfBody {
  name: string;
  mesh: TriangleMesh;
}

/**
 * 3MF Core Specification 1.3: an OPC zip with one model part, unit millimetre, one object a body, and a picture of them.
 * @param note goes into the metadata: for which printer the sizes are meant
 */
export function writeThreeMf(title: string, note: string, bodies: readonly ThreeMfBody[]): Uint8Array {
  const objects = bodies.map(({ name, mesh }, i) => objectXml(i + 1, name, mesh));
  const items = bodies.map((_, i) => `<item objectid="${i + 1}"/>`);
  const model = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<model unit="millimeter" xml:lang="en" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02">',
    `<metadata name="Title">${escapeXml(title)}</metadata>`,
    '<metadata name="Application">Sagoma</metadata>',
    `<metadata name="Description">${escapeXml(note)}</metadata>`,
    `<resources>${objects.join('')}</resources>`,
    `<build>${items.join('')}</build>`,
    '</model>',
  ].join('\n');
  return zipSync(
    {
      '[Content_Types].xml': strToU8(
        '<?xml version="1.0" encoding="UTF-8"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="png" ContentType="image/png"/><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>',
      ),
      '_rels/.rels': strToU8(
        '<?xml version="1.0" encoding="UTF-8"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/><Relationship Target="/Metadata/thumbnail.png" Id="rel1" Type="http://schemas.openxmlformats.org/package/2006/relationships/metadata/thumbnail"/></Relationships>',
      ),
      // Already compressed.
      'Metadata/thumbnail.png': [partPicture(bodies.map(b => b.mesh)), { level: 0 }],
      '3D/3dmodel.model': strToU8(model),
    },
    { mtime: NO_DATE, level: 6 },
  );
}

function objectXml(id: number, name: string, { positions, triangles }: TriangleMesh): string {
  const lines = [`<object id="${id}" type="model" name="${escapeXml(name)}"><mesh><vertices>`];
  for (let v = 0; v < positions.length; v += 3) {
    lines.push(
      `<vertex x="${decimal(positions[v]!)}" y="${decimal(positions[v + 1]!)}" z="${decimal(positions[v + 2]!)}"/>`,
    );
  }
  lines.push('</vertices><triangles>');
  for (let t = 0; t < triangles.length; t += 3) {
    lines.push(`<triangle v1="${triangles[t]}" v2="${triangles[t + 1]}" v3="${triangles[t + 2]}"/>`);
  }
  lines.push('</triangles></mesh></object>');
  return lines.join('\n');
}

/** A millionth of a millimetre, never in exponent form, which some readers refuse. */
const decimal = (x: number) => String(Number(x.toFixed(6)) + 0).replace(/^-?\d.*e-.*$/, '0');

function escapeXml(text: string): string {
  // Control characters cannot stand in XML 1.0 at all, not even escaped.
  // biome-ignore lint/suspicious/noControlCharactersInRegex: they are what is removed
  const clean = text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '');
  return clean.replace(/[<>&"']/g, c => `&#${c.charCodeAt(0)};`);
}
