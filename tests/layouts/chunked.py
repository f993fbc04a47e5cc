"""Layouts with a table of chunks that entries share, and with packed directories. See layouts.py."""
import struct, zlib

from shared import *


def shrink(data):
    packed = zlib.compress(data, 9)
    return packed if len(packed) < len(data) else data


def grow(data, size):
    return data if len(data) == size else zlib.decompress(data)


def laid_end_to_end(items):
    """All entries as one stream, and records that say where each lies in it."""
    stream, table = b"", b""
    for path, data in items:
        table += struct.pack("<32sII", path.encode(), len(stream), len(data))
        stream += data
    return stream, table


class Reel:
    """All entries one behind the other, cut into chunks of 1024; after the records the chunks' sizes, the highest bit for raw ones."""
    name = "game.reel"

    def write(self, items):
        stream, table = laid_end_to_end(items)
        chunks = []
        for at in range(0, len(stream), 1024):
            plain = stream[at:at + 1024]
            packed = zlib.compress(plain)
            chunks.append((len(packed), packed) if len(packed) < len(plain) else (len(plain) | 0x8000, plain))
        head = b"REEL" + struct.pack("<III", len(items), len(chunks), zlib.crc32(table))
        return {self.name: head + table + struct.pack("<%dH" % len(chunks), *(n for n, _ in chunks)) + b"".join(c for _, c in chunks) + b"fin"}

    def read(self, files):
        f = files[self.name]
        entries, count, crc = struct.unpack_from("<III", f, 4)
        table = f[16:16 + 40 * entries]
        need(zlib.crc32(table) == crc, "checksum of the table")
        sizes = struct.unpack_from("<%dH" % count, f, 16 + 40 * entries)
        at, stream = 16 + 40 * entries + 2 * count, b""
        for i, n in enumerate(sizes):
            piece = f[at:at + (n & 0x7FFF)]
            stream += piece if n & 0x8000 else zlib.decompress(piece)
            need(len(stream) == 1024 * (i + 1) or i + 1 == count, "size of a chunk")
            at += n & 0x7FFF
        need(f[at:] == b"fin", "end")
        out = {}
        for i in range(entries):
            name, start, size = struct.unpack_from("<32sII", table, 40 * i)
            need(start + size <= len(stream), "extent")
            out[text(name)] = stream[start:start + size]
        return out


class Bricks:
    """A table of chunks at a place the header says, with offset, stored size and size of each; chunks at multiples of 16."""
    name = "game.brk"

    def write(self, items):
        stream, table = laid_end_to_end(items)
        where = 20 + len(table)
        body, rows = b"", b""
        cut = [stream[a:a + 2000] for a in range(0, len(stream), 2000)]
        start = (where + 12 * len(cut) + 15) // 16 * 16
        for plain in cut:
            body = pad(body, 16)
            packed = shrink(plain)
            rows += struct.pack("<III", start + len(body), len(packed), len(plain))
            body += packed
        return {self.name: pad(b"BRIK" + struct.pack("<IIII", len(items), where, len(cut), 2000) + table + rows, 16) + body}

    def read(self, files):
        f = files[self.name]
        entries, where, count, size = struct.unpack_from("<IIII", f, 4)
        stream = b""
        for i in range(count):
            at, stored, plain = struct.unpack_from("<III", f, where + 12 * i)
            need(at % 16 == 0 and at + stored <= len(f), "chunk")
            stream += grow(f[at:at + stored], plain)
        out = {}
        for i in range(entries):
            name, start, n = struct.unpack_from("<32sII", f, 20 + 40 * i)
            need(start + n <= len(stream), "extent")
            out[text(name)] = stream[start:start + n]
        return out


class Folded:
    """A directory in zlib at the front, whose size is in the header; data counts from its end. A checksum of header and directory together."""
    name = "game.fold"

    def head(self, count, stored, table, whole):
        fixed = b"FOLD" + struct.pack("<IIII", count, stored, len(table), whole)
        return fixed + struct.pack("<I", zlib.crc32(fixed + bytes(4) + table))

    def write(self, items):
        table, body = b"", b""
        for path, data in items:
            p = path.encode()
            table += bytes([len(p)]) + p + struct.pack("<IIi", len(body), len(data), -len(data))
            body += data
        packed = zlib.compress(table)
        return {self.name: self.head(len(items), len(packed), table, 24 + len(packed) + len(body)) + packed + body}

    def read(self, files):
        f = files[self.name]
        count, stored, size, whole = struct.unpack_from("<IIII", f, 4)
        table = zlib.decompress(f[24:24 + stored])
        need(len(table) == size and whole == len(f), "sizes")
        need(f[:24] == self.head(count, stored, table, whole), "checksum of header and directory")
        at, out = 0, {}
        for _ in range(count):
            n = table[at]
            start, length, mark = struct.unpack_from("<IIi", table, at + 1 + n)
            need(24 + stored + start + length <= len(f), "extent")
            out[table[at + 1:at + 1 + n].decode()] = f[24 + stored + start:24 + stored + start + length]
            at += 13 + n
        need(at == size, "table")
        return out


class Wall:
    """Chunks in front, then the records, then the table of chunks: their offsets alone. The header says where both tables are."""
    name = "game.wall"

    def write(self, items):
        stream, table = laid_end_to_end(items)
        body, rows = b"", b""
        cut = [stream[a:a + 1500] for a in range(0, len(stream), 1500)]
        for plain in cut:
            rows += struct.pack("<IH", 20 + len(body), len(plain))
            body += shrink(plain)
        return {self.name: b"WALL" + struct.pack("<IIII", len(items), 20 + len(body), 20 + len(body) + len(table), len(cut)) + body + table + rows}

    def read(self, files):
        f = files[self.name]
        entries, at, where, count = struct.unpack_from("<IIII", f, 4)
        rows = [struct.unpack_from("<IH", f, where + 6 * i) for i in range(count)]
        ends = [r[0] for r in rows[1:]] + [at]
        stream = b"".join(grow(f[start:end], size) for (start, size), end in zip(rows, ends))
        out = {}
        for i in range(entries):
            name, start, n = struct.unpack_from("<32sII", f, at + 40 * i)
            need(start + n <= len(stream), "extent")
            out[text(name)] = stream[start:start + n]
        return out


class Tucked:
    """A packed directory at a place the header says, under XOR; a checksum of it as it is unpacked; places count from the file's beginning."""
    name = "game.tuck"

    def hide(self, data):
        return bytes(b ^ KEYS["tin"][i % 8] for i, b in enumerate(data))

    def write(self, items):
        table, body = b"", bytes(32)
        for path, data in items:
            body = pad(body, 8, 0xCC)
            table += struct.pack(">40sIII", path.encode(), len(body), len(data), zlib.crc32(data))
            body += data
        body = pad(body, 8, 0xCC)
        packed = self.hide(zlib.compress(table))
        head = struct.pack(">8sIIIII", b"TUCKED\0\1", len(items), len(body), len(packed), len(table), zlib.crc32(table))
        return {self.name: head.ljust(32, b"\0") + body[32:] + packed}

    def read(self, files):
        f = files[self.name]
        magic, count, at, stored, size, crc = struct.unpack_from(">8sIIIII", f)
        table = zlib.decompress(self.hide(f[at:at + stored]))
        need(len(table) == size == 52 * count and zlib.crc32(table) == crc, "table")
        out = {}
        for i in range(count):
            name, start, n, check = struct.unpack_from(">40sIII", table, 52 * i)
            need(zlib.crc32(f[start:start + n]) == check and start % 8 == 0, "checksum")
            out[text(name)] = f[start:start + n]
        return out


LAYOUTS = (Reel, Bricks, Wall, Folded, Tucked)
