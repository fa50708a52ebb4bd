import { crc32, deflateRawSync } from 'node:zlib';

/**
 * A ZIP archive (PKWARE's APPNOTE 6.3.10, 4.3.7, 4.3.12 and 4.3.16), packed by Node itself: ZIP libraries take ten seconds
 * for a file that is made to overwhelm.
 */
export function packed(files: Record<string, Uint8Array>): Uint8Array {
  const locals: Buffer[] = [];
  const central: Buffer[] = [];
  let offset = 0;
  for (const [path, content] of Object.entries(files)) {
    const name = Buffer.from(path);
    const data = deflateRawSync(content, { level: 1 });
    // Version, flags, method (deflate), time, date, checksum, both sizes, length of the name, no extra field.
    const facts = Buffer.alloc(26);
    facts.writeUInt16LE(20, 0);
    facts.writeUInt16LE(8, 4);
    facts.writeUInt16LE(0x21, 8);
    facts.writeUInt32LE(crc32(content), 10);
    facts.writeUInt32LE(data.length, 14);
    facts.writeUInt32LE(content.length, 18);
    facts.writeUInt16LE(name.length, 22);
    locals.push(Buffer.from('PK\x03\x04', 'latin1'), facts, name, data);
    // No comment, first disk, no attributes, then where the local header lies.
    const rest = Buffer.alloc(14);
    rest.writeUInt32LE(offset, 10);
    central.push(Buffer.from('PK\x01\x02\x14\x00', 'latin1'), facts, rest, name);
    offset += 30 + name.length + data.length;
  }
  const directory = Buffer.concat(central);
  const end = Buffer.alloc(18);
  end.writeUInt16LE(Object.keys(files).length, 4);
  end.writeUInt16LE(Object.keys(files).length, 6);
  end.writeUInt32LE(directory.length, 8);
  end.writeUInt32LE(offset, 12);
  return new Uint8Array(Buffer.concat([...locals, directory, Buffer.from('PK\x05\x06', 'latin1'), end]));
}
