// Says in a line of JSON each what the npm package ktx-parse finds in KTX2 files.
import { readFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { pathToFileURL } from 'node:url';
const [modules, ...files] = process.argv.slice(2);
const { read, write } = await import(pathToFileURL(`${modules}/ktx-parse/dist/index.mjs`));
for (const file of files) {
  const ktx = read(readFileSync(file));
  const dfd = ktx.dataFormatDescriptor[0];
  console.log(JSON.stringify({
    vkFormat: ktx.vkFormat, typeSize: ktx.typeSize, width: ktx.pixelWidth, height: ktx.pixelHeight, depth: ktx.pixelDepth, layers: ktx.layerCount,
    faces: ktx.faceCount, scheme: ktx.supercompressionScheme, transfer: dfd.transferFunction, model: dfd.colorModel,
    block: Array.from(dfd.texelBlockDimension), planeBytes: dfd.bytesPlane[0], samples: dfd.samples.length,
    levels: ktx.levels.map((l) => ({ bytes: l.levelData.byteLength, uncompressed: l.uncompressedByteLength, sha256: createHash('sha256').update(l.levelData).digest('hex') })),
    rewritten: write(ktx).byteLength > 0,
  }));
}
