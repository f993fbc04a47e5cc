"""Layouts in which places and sizes follow from the order of entries, and which hide their bytes. See layouts.py."""
import struct, zlib

from layouts_bins import Bins
from shared import *


def lzss(data):
    """Window 4096 from 4078 on, filled with blanks; flags from the lowest bit, 1 for a single byte; pairs of 12 + 4 bits, 3 to 18 long."""
    out, at = bytearray(), 0
    while at < len(data):
        flags, body = 0, bytearray()
        for bit in range(8):
            if at >= len(data):
                break
            best, where = 0, 0
            for back in range(1, min(at, 4000) + 1):
                n = 0
                while n < 18 and at + n < len(data) and data[at - back + n] == data[at + n]:
                    n += 1
                if n > best:
                    best, where = n, back
                if n == 18:
                    break
            if best >= 3:
                place = (4078 + at - where) % 4096
                body += bytes([place & 255, place >> 8 << 4 | best - 3])
                at += best
            else:
                flags |= 1 << bit
                body.append(data[at])
                at += 1
        out.append(flags)
        out += body
    return bytes(out)


def unlzss(packed, size):
    window, r, out, at = bytearray(b" " * 4096), 4078, bytearray(), 0
    while len(out) < size:
        flags = packed[at]
        at += 1
        for bit in range(8):
            if len(out) >= size:
                break
            if flags >> bit & 1:
                piece = packed[at:at + 1]
                at += 1
            else:
                place, n = packed[at] | packed[at + 1] >> 4 << 8, (packed[at + 1] & 15) + 3
                at += 2
                piece = bytearray()
                for k in range(n):
                    b = window[(place + k) % 4096]
                    window[(r + k) % 4096] = b
                    piece.append(b)
            for b in piece:
                window[r] = b
                r = (r + 1) % 4096
                out.append(b)
    need(at == len(packed), "lzss: bytes are left")
    return bytes(out)


class Train:
    """Big-endian cars, one behind the other: a record, its data, zeros up to 16. A car without a name is the last. An odd sum of all names."""
    name = "game.train"

    def write(self, items):
        f = b"TRAIN\0\0\0" + struct.pack(">I", len(items)) + bytes(4)
        for path, data in items:
            p = path.encode()
            f = pad(f + struct.pack(">HII", len(p), len(data), zlib.crc32(data)) + p + data, 16)
        return {self.name: f + struct.pack(">HII", 0, 0, 0)}

    def read(self, files):
        f, at, out = files[self.name], 16, {}
        while True:
            n, size, crc = struct.unpack_from(">HII", f, at)
            if n == 0:
                break
            path = f[at + 10:at + 10 + n].decode()
            data = f[at + 10 + n:at + 10 + n + size]
            need(zlib.crc32(data) == crc, "checksum of " + path)
            end = at + 10 + n + size
            at = (end + 15) // 16 * 16
            need(f[end:at].strip(b"\0") == b"", "padding")
            out[path] = data
        need(at + 10 == len(f) and struct.unpack_from(">I", f, 8)[0] == len(out), "end")
        return out


class Queue:
    """A count, then all names, all packed sizes (0: stored), all sizes; the data follows, aligned to 32."""
    name = "game.queue"

    def write(self, items):
        packed = [deflate(d) if i % 2 == 0 and d else b"" for i, (_, d) in enumerate(items)]
        table = struct.pack("<I", len(items)) + b"".join(struct.pack("32s", p.encode()) for p, _ in items)
        table += b"".join(struct.pack("<I", len(p)) for p in packed) + b"".join(struct.pack("<I", len(d)) for _, d in items)
        f = b"QUEU" + table
        for p, (_, d) in zip(packed, items):
            f = pad(f, 32) + (p or d)
        return {self.name: f}

    def read(self, files):
        f = files[self.name]
        count, = struct.unpack_from("<I", f, 4)
        sizes = struct.unpack_from("<%dI" % (2 * count), f, 8 + 32 * count)
        at, out = 8 + 40 * count, {}
        for i in range(count):
            stored, size = sizes[i], sizes[count + i]
            at = (at + 31) // 32 * 32
            data = f[at:at + (stored or size)]
            out[text(f[8 + 32 * i:40 + 32 * i])] = zlib.decompress(data, -15) if stored else data
            need(len(list(out.values())[-1]) == size and (not stored or stored < size), "size")
            at += stored or size
        need(at == len(f), "end")
        return out


class Seams:
    """Offsets from the end of the header and sizes unpacked; what is stored ends where the next begins, the last one at the table. An LZSS
    of its own packs what it makes smaller."""
    name = "game.seam"

    def write(self, items):
        body, table = b"", b""
        for path, data in items:
            packed = lzss(data)
            table += struct.pack("<32sII", path.encode(), len(body), len(data))
            body += packed if len(packed) < len(data) else data
        head = b"SEAM" + struct.pack("<III", len(items), 20 + len(body), zlib.crc32(table))
        return {self.name: head + b"\0\0\0\x2a" + body + table}

    def read(self, files):
        f = files[self.name]
        count, at, crc = struct.unpack_from("<III", f, 4)
        need(zlib.crc32(f[at:]) == crc and len(f) == at + 40 * count and f[16:20] == b"\0\0\0\x2a", "table")
        rows = [struct.unpack_from("<32sII", f, at + 40 * i) for i in range(count)]
        out = {}
        for i, (name, start, size) in enumerate(rows):
            end = rows[i + 1][1] if i + 1 < count else at - 20
            data = f[20 + start:20 + end]
            out[text(name)] = data if len(data) == size else unlzss(data, size)
            need(len(out[text(name)]) == size, "size of " + text(name))
        return out


class Lumps:
    """Markers make folders; offsets count from the end of the table; all data under XOR with the key in the header, counted from the
    beginning of the file."""
    name = "game.lmp"
    KEY = b"\x11\x52\x93\xd4\x35"

    def hide(self, data, at):
        return bytes(b ^ self.KEY[(at + i) % 5] for i, b in enumerate(data))

    def write(self, items):
        folders = {}
        for path, data in items:
            folders.setdefault(path.rpartition("/")[0], []).append((path.rpartition("/")[2], data))
        rows = []
        for folder, files in folders.items():
            rows += [(folder + "_START", b"")] if folder else []
            rows += files
            rows += [(folder + "_END", b"")] if folder else []
        end = 16 + 24 * len(rows)
        table = body = b""
        for name, data in rows:
            table += struct.pack("<16sII", name.encode(), len(body) if data else 0, len(data))
            body += self.hide(data, end + len(body))
        return {self.name: b"LUMP" + struct.pack("<H", len(rows)) + self.KEY + bytes(5) + table + body}

    def read(self, files):
        f, out, folder = files[self.name], {}, []
        count, = struct.unpack_from("<H", f, 4)
        need(f[6:11] == self.KEY, "key")
        end = 16 + 24 * count
        for i in range(count):
            name, at, size = struct.unpack_from("<16sII", f, 16 + 24 * i)
            name = text(name)
            if name.endswith("_START"):
                folder.append(name[:-6])
            elif name.endswith("_END"):
                need(folder.pop() == name[:-4], "markers")
            else:
                need(end + at + size <= len(f), "extent of " + name)
                out["/".join(folder + [name])] = self.hide(f[end + at:end + at + size], end + at)
        return out


class Sealed:
    """The table inverted, one checksum over names and another over header and table; data with each two bytes swapped; LZO1X."""
    name = "game.seal"

    def names(self, items):
        return b"".join(p.encode() + b"\0" for p, _ in items)

    def head(self, count, names, table):
        fixed = struct.pack("<4sIII", b"SEAL", count, len(names), zlib.adler32(names))
        return fixed + struct.pack("<I", zlib.crc32(fixed + bytes(4) + table))

    def swap(self, data):
        out = bytearray(data)
        out[0:len(out) // 2 * 2:2], out[1::2] = data[1::2], data[0:len(out) // 2 * 2:2]
        return bytes(out)

    def write(self, items):
        names, table, body, at = self.names(items), b"", b"", 0
        start = 20 + 16 * len(items) + len(names)
        for path, data in items:
            table += struct.pack("<IIII", at, start + len(body), len(data), zlib.crc32(self.swap(data)))
            at += len(path.encode()) + 1
            body += self.swap(data)
        return {self.name: self.head(len(items), names, table) + bytes(255 - b for b in table) + names + body}

    def read(self, files):
        f, out = files[self.name], {}
        count, size = struct.unpack_from("<II", f, 4)
        table = bytes(255 - b for b in f[20:20 + 16 * count])
        names = f[20 + 16 * count:20 + 16 * count + size]
        need(f[:20] == self.head(count, names, table), "header")
        for i in range(count):
            n, at, length, crc = struct.unpack_from("<IIII", table, 16 * i)
            need(zlib.crc32(f[at:at + length]) == crc, "checksum")
            out[names[n:names.index(b"\0", n)].decode()] = self.swap(f[at:at + length])
        return out


class Guise:
    """An archive of the simplest kind in gzip whose mark is another, with four bytes behind it; no header."""
    name = "game.gui"

    def write(self, items):
        inner = Bins().write(items)["game.bins"]
        packed = tool(["gzip", "-c", "-n"], inner)
        return {self.name: b"FZ" + packed[2:] + b"tail"}

    def read(self, files):
        f = files[self.name]
        need(f[:2] == b"FZ" and f[-4:] == b"tail", "mark")
        return Bins().read({"game.bins": tool(["gzip", "-d", "-c"], b"\x1f\x8b" + f[2:-4])})


LAYOUTS = (Train, Queue, Seams, Lumps, Sealed, Guise)
