"""Invented archive layouts, each with a writer and a reader of its own that share nothing with Skivet.

    layouts.py write NAME FOLDER SEED    writes the archive and, below FOLDER/plain, what is in it
    layouts.py read NAME FOLDER OUT      unpacks the archive below OUT; every size, offset and checksum is checked
"""
import hashlib, lzma, os, random, struct, subprocess, sys, zlib

from layouts_bins import Bins
from shared import *
import chunked, ordered

# Each layout: write(items) -> {file name: bytes}; read(files) -> {path: bytes}. `items` is a list of (path, data).

class Ledger:
    """Big-endian, sectors of 2048, the table behind the data with a CRC-32, Adler-32 of each entry."""
    name = "game.led"

    def write(self, items):
        body = bytes(2048)
        table = b""
        for path, data in items:
            body = pad(body, 2048, 0xEE)
            p = path.replace("/", "\\").encode()
            table += struct.pack(">H", len(p)) + p + struct.pack(">IIIi", len(body) // 2048, len(data), zlib.adler32(data), -5)
            body += data
        body = pad(body, 2048, 0xEE)
        head = b"\x89LED" + struct.pack(">IQII", len(items), len(body), len(table), zlib.crc32(table))
        return {self.name: head + body[len(head):] + table}

    def read(self, files):
        f = files[self.name]
        count, at, n, crc = struct.unpack_from(">IQII", f, 4)
        table = f[at:at + n]
        need(len(table) == n and zlib.crc32(table) == crc, "table checksum")
        out, p = {}, 0
        for _ in range(count):
            length, = struct.unpack_from(">H", table, p)
            name = table[p + 2:p + 2 + length].decode().replace("\\", "/")
            sector, size, adler, mark = struct.unpack_from(">IIIi", table, p + 2 + length)
            need(mark == -5, "kept field")
            data = f[sector * 2048:sector * 2048 + size]
            need(len(data) == size and zlib.adler32(data) == adler, "entry checksum of " + name)
            out[name] = data
            p += 2 + length + 16
        return out


class Trunk:
    """The header is the last 40 bytes, the table before it; deflate by a field; SHA-1 of the stored bytes; a sum of the header."""
    name = "game.trunk"

    def write(self, items):
        body = table = b""
        for i, (path, data) in enumerate(items):
            packed = deflate(data) if i % 2 else data
            p = path.encode() + b"\0"
            table += p + struct.pack("<BIII", i % 2, len(body), len(packed), len(data)) + hashlib.sha1(packed).digest()
            body += packed
        return {self.name: body + table + self.head(len(items), len(body), len(table), len(body) + len(table) + 40)}

    def head(self, count, at, n, size):
        h = struct.pack("<IQQI", count, at, size, n)
        total = sum(h) + 5 + sum(b"KNURT")
        return h + struct.pack("<I", total) + b"\x05\0\0\0\0\0\0" + b"KNURT"

    def read(self, files):
        f = files[self.name]
        count, at, size, n = struct.unpack_from("<IQQI", f, len(f) - 40)
        need(f.endswith(b"KNURT") and size == len(f) and at + n + 40 == len(f), "trailer")
        need(f[-40:] == self.head(count, at, n, size), "sum of the header")
        out, p = {}, at
        for _ in range(count):
            e = f.index(b"\0", p)
            name = f[p:e].decode()
            method, start, stored, plain = struct.unpack_from("<BIII", f, e + 1)
            packed = f[start:start + stored]
            need(start + stored <= at and hashlib.sha1(packed).digest() == f[e + 14:e + 34], "entry " + name)
            out[name] = zlib.decompress(packed, -15) if method else packed
            need(len(out[name]) == plain, "size of " + name)
            p = e + 34
        need(p == at + n, "table size")
        return out


class Rows:
    """Folders with records of their own, names in a string table by offset, data counted from a field."""
    name = "game.rows"

    def write(self, items):
        folders = {}
        for path, data in items:
            folders.setdefault(path.rpartition("/")[0], []).append((path.rpartition("/")[2], data))
        names, rows, records, body = b"", b"", b"", b""
        first = 0
        for folder, files in folders.items():
            rows += struct.pack("<III", len(names), first, len(files))
            names += folder.encode("latin-1") + b"\0"
            first += len(files)
            for name, data in files:
                records += struct.pack("<IIIf", len(names), len(body), len(data), 1.5)
                names += name.encode("latin-1") + b"\0"
                body = pad(body + data, 8)
        at = 40
        places = [at, at + len(rows), at + len(rows) + len(records), at + len(rows) + len(records) + len(names)]
        head = b"ROWS" + struct.pack("<IIIIIIII", len(folders), len(items), *places, len(names), fnv1a(records, 32))
        return {self.name: pad(head, 40) + rows + records + names + body}

    def read(self, files):
        f = files[self.name]
        nf, ne, folders_at, records_at, names_at, data_at, names_size, check = struct.unpack_from("<IIIIIIII", f, 4)
        need(fnv1a(f[records_at:records_at + 16 * ne], 32) == check, "table checksum")

        def name(o):
            return f[names_at + o:f.index(b"\0", names_at + o)].decode("latin-1")
        out = {}
        for i in range(nf):
            folder, first, count = struct.unpack_from("<III", f, folders_at + 12 * i)
            for k in range(first, first + count):
                n, at, size, ratio = struct.unpack_from("<IIIf", f, records_at + 16 * k)
                need(ratio == 1.5 and data_at + at + size <= len(f), "record")
                out[(name(folder) + "/" if name(folder) else "") + name(n)] = f[data_at + at:data_at + at + size]
        return out


class Grove:
    """A tree of names, each level a list that an empty string ends: extension, folder, name. A blank stands for nothing."""
    name = "game.grove"

    def write(self, items):
        tree, body, spots = {}, b"", {}
        for path, data in items:
            folder, _, name = path.rpartition("/")
            name, _, ext = name.rpartition(".") if "." in name else (name, "", "")
            tree.setdefault(ext or " ", {}).setdefault(folder or " ", []).append((name, len(body), data))
            body += data
        t = b""
        for ext, folders in tree.items():
            t += ext.encode() + b"\0"
            for folder, names in folders.items():
                t += folder.encode() + b"\0"
                for name, at, data in names:
                    t += name.encode() + b"\0" + struct.pack("<IHII", zlib.crc32(data), 0xFFFF, at, len(data))
                t += b"\0"
            t += b"\0"
        t += b"\0"
        return {self.name: b"GROV" + struct.pack("<II", len(t), 12 + len(t)) + t + body}

    def read(self, files):
        f = files[self.name]
        size, data_at = struct.unpack_from("<II", f, 4)
        out, p = {}, 12

        def word():
            nonlocal p
            e = f.index(b"\0", p)
            w, p = f[p:e].decode(), e + 1
            return w
        while ext := word():
            while folder := word():
                while name := word():
                    crc, mark, at, n = struct.unpack_from("<IHII", f, p)
                    p += 14
                    data = f[data_at + at:data_at + at + n]
                    need(mark == 0xFFFF and zlib.crc32(data) == crc, "entry " + name)
                    out[("" if folder == " " else folder + "/") + name + ("" if ext == " " else "." + ext)] = data
        need(p == 12 + size, "tree size")
        return out


class Cipher:
    """Names only as FNV-1a of the lower-case path; the table under AES-128-CBC, the data under a rolling XOR."""
    name = "game.cph"
    IV = bytes(range(16))

    def roll(self, data, back=False):
        key, out, last = KEYS["tin"], bytearray(), 0
        for i, b in enumerate(data):
            v = b ^ key[i % len(key)] ^ last
            last = b if back else v
            out.append(v)
        return bytes(out)

    def write(self, items):
        body, table = b"", b""
        for path, data in items:
            body = pad(body, 4)
            table += struct.pack("<IIII", fnv1a(path.lower().encode(), 32), 0x40 + len(body), len(data), zlib.crc32(data))
            body += self.roll(data)
        body = pad(body, 16)
        head = b"CPH!" + struct.pack("<IIII", len(items), 0x40 + len(body), len(table), zlib.crc32(table))
        paths = "# known paths\n" + "\n".join(p for i, (p, _) in enumerate(items) if i != 1) + "\n"
        return {self.name: head.ljust(0x40, b"\0") + body + aes("aes-128-cbc", KEYS["booth"], self.IV, table), "cipher.paths": paths.encode()}

    def read(self, files):
        f = files[self.name]
        count, at, n, crc = struct.unpack_from("<IIII", f, 4)
        table = aes("aes-128-cbc", KEYS["booth"], self.IV, f[at:at + n], True)
        need(zlib.crc32(table) == crc, "table checksum")
        out = {}
        known = {fnv1a(p.lower().encode(), 32): p for p in files["cipher.paths"].decode().split("\n")}
        for i in range(count):
            h, start, size, check = struct.unpack_from("<IIII", table, 16 * i)
            data = self.roll(f[start:start + size], True)
            need(zlib.crc32(data) == check, "entry checksum")
            out[known.get(h, "#%08x" % h)] = data
        return out


class Index:
    """An index file and numbered data files."""
    name = "game.idx"

    def write(self, items):
        files, table = {}, b""
        for i, (path, data) in enumerate(items):
            number = i % 3
            body = files.get("game-%02d.dat" % number, b"DATA")
            packed = zlib.compress(data)
            table += struct.pack("<48sBIII", path.encode(), number, len(body), len(packed), len(data))
            files["game-%02d.dat" % number] = body + packed
        files[self.name] = b"INDX" + struct.pack("<I", len(items)) + table
        return files

    def read(self, files):
        f = files[self.name]
        count, = struct.unpack_from("<I", f, 4)
        out = {}
        for i in range(count):
            name, number, at, stored, size = struct.unpack_from("<48sBIII", f, 8 + 61 * i)
            data = zlib.decompress(files["game-%02d.dat" % number][at:at + stored])
            need(len(data) == size, "size")
            out[text(name)] = data
        need(all(v[:4] == b"DATA" for k, v in files.items() if k.endswith(".dat")), "data files")
        return out


class Dump:
    """The data beside the directory, one stream cut into parts of 4096 bytes."""
    name = "game.toc"

    def write(self, items):
        body, table = b"", b""
        for path, data in items:
            table += struct.pack("<B", len(path)) + path.encode() + struct.pack("<QI", len(body), len(data))
            body = pad(body + data, 64)
        files = {"game.d%02d" % i: body[i * 4096:i * 4096 + 4096] for i in range((len(body) + 4095) // 4096)}
        files[self.name] = b"TOC1" + table
        return files

    def read(self, files):
        f = files[self.name]
        parts = [files[k] for k in sorted(files) if k.startswith("game.d")]
        need(all(len(p) == 4096 for p in parts[:-1]), "parts")
        body = b"".join(parts)
        out, p = {}, 4
        while p < len(f):
            n = f[p]
            name = f[p + 1:p + 1 + n].decode()
            at, size = struct.unpack_from("<QI", f, p + 1 + n)
            out[name] = body[at:at + size]
            p += 13 + n
        return out


class Chunky:
    """Zstandard in chunks of a stated size; a chunk that does not shrink is raw and its size has the highest bit set."""
    name = "game.chk"

    def write(self, items):
        size, body, table = 1000, b"", b""
        for path, data in items:
            chunks = [data[i:i + size] for i in range(0, len(data), size)]
            packed = [tool(["zstd", "-q", "-c"], c) for c in chunks]
            sizes = b"".join(struct.pack("<I", len(c) | 1 << 31 if len(p) >= len(c) else len(p)) for c, p in zip(chunks, packed))
            stored = sizes + b"".join(c if len(p) >= len(c) else p for c, p in zip(chunks, packed))
            table += struct.pack("<64sIIIQ", path.encode(), 24 + 84 * len(items) + len(body), len(stored), len(data), xxh64(data))
            body += stored
        return {self.name: b"CHK\0" + struct.pack("<IIIQ", len(items), size, 0, xxh64(table)) + table + body}

    def read(self, files):
        f = files[self.name]
        count, size, zero, check = struct.unpack_from("<IIIQ", f, 4)
        need(xxh64(f[24:24 + 84 * count]) == check, "table checksum")
        out = {}
        for i in range(count):
            name, at, stored, plain, check = struct.unpack_from("<64sIIIQ", f, 24 + 84 * i)
            n = (plain + size - 1) // size
            sizes = struct.unpack_from("<%dI" % n, f, at)
            p, data = at + 4 * n, b""
            for s in sizes:
                chunk = f[p:p + (s & 0x7FFFFFFF)]
                data += chunk if s >> 31 else tool(["zstd", "-q", "-d", "-c"], chunk)
                p += s & 0x7FFFFFFF
            need(p == at + stored and len(data) == plain and xxh64(data) == check, "entry " + text(name))
            out[text(name)] = data
        return out


class Flags:
    """Bit fields; 24-bit offsets in steps of 16; UTF-16 names; deleted entries; AES-256-CTR with the IV in the record."""
    name = "game.flg"

    def write(self, items):
        body, table = b"", b""
        entries = [(p, d, i % 2, 0, i % 3 == 1) for i, (p, d) in enumerate(items)]
        entries.insert(1, ("gone.bin", b"nobody reads this", 0, 1, False))
        for i, (path, data, method, deleted, secret) in enumerate(entries):
            body = pad(body, 16, 0xCC)
            packed = tool(["lz4", "-q", "-c"], data) if method else data
            iv = bytes([i] * 16)
            if secret:
                packed = aes("aes-256-ctr", KEYS["vault"], iv, packed)
            table += struct.pack("<H", len(path)) + path.encode("utf-16-le") + struct.pack("<H", 5 << 9 | secret << 4 | deleted << 3 | method)
            table += struct.pack("<I", (64 + len(body)) // 16)[:3] + struct.pack("<II", len(packed), len(data)) + iv
            body += packed
        table_at = 64 + len(body)
        return {self.name: (b"FLAG" + struct.pack("<HII", len(entries), table_at, table_at + len(table))).ljust(64, b"\0") + body + table}

    def read(self, files):
        f = files[self.name]
        count, p, size = struct.unpack_from("<HII", f, 4)
        need(size == len(f), "file size")
        out = {}
        for _ in range(count):
            n, = struct.unpack_from("<H", f, p)
            name = f[p + 2:p + 2 + 2 * n].decode("utf-16-le")
            p += 2 + 2 * n
            bits, = struct.unpack_from("<H", f, p)
            need(bits >> 9 == 5, "kept bits")
            at = int.from_bytes(f[p + 2:p + 5], "little") * 16
            stored, plain = struct.unpack_from("<II", f, p + 5)
            iv = f[p + 13:p + 29]
            p += 29
            if bits >> 3 & 1:
                continue
            data = f[at:at + stored]
            if bits >> 4 & 1:
                data = aes("aes-256-ctr", KEYS["vault"], iv, data, True)
            if bits & 7:
                data = tool(["lz4", "-q", "-d", "-c"], data)
            need(len(data) == plain, "size of " + name)
            out[name] = data
        return out


class Twin:
    """The byte order in a field, LZ4 blocks, entries that share data and empty ones, a last record that ends the table; no entry may move."""
    name = "game.twn"

    def write(self, items):
        body, table, seen = b"", b"", {}
        start = 24 + 44 * (len(items) + 1)
        for path, data in items:
            packed = lz4_block_write(data) if data else b""
            if packed not in seen or not data:
                body = pad(body, 4)
                seen[packed] = start + len(body)
                body += packed
            table += struct.pack(">32sIII", path.encode(), seen[packed], len(packed), len(data))
        table += bytes(44)
        return {self.name: b"TWIN" + struct.pack(">H", 0x1234) + b"\0\0" + struct.pack(">QQ", start + len(body), len(body)) + table + body}

    def read(self, files):
        f = files[self.name]
        size, body = struct.unpack_from(">QQ", f, 8)
        need(size == len(f), "file size")
        out, p, last = {}, 24, 0
        while True:
            name, at, stored, plain = struct.unpack_from(">32sIII", f, p)
            p += 44
            if not text(name):
                break
            data = lz4_block_read(f[at:at + stored]) if stored else b""
            need(at % 4 == 0 and len(data) == plain, "entry " + text(name))
            out[text(name)] = data
        need(p + body == len(f), "data size")
        return out


class Parade:
    """Each folder's record before its entries; names by their number in a list; LZMA; FNV-1a of 64 bits; records padded to 4 bytes."""
    name = "game.prd"

    def write(self, items):
        folders, names = {}, []
        for path, data in items:
            folders.setdefault(path.rpartition("/")[0], []).append((path.rpartition("/")[2], data))
        body, spots = b"", {}
        for folder, files in folders.items():
            for name, data in files:
                stem, _, ext = name.rpartition(".") if "." in name else (name, "", "")
                spots[folder, name] = (len(body), lzma.compress(data, format=lzma.FORMAT_ALONE), len(data), stem, ext)
                body += spots[folder, name][1]
                names.append(stem)
        body = pad(body, 4)
        table, index = b"", 0
        for folder, files in folders.items():
            table = pad(table + struct.pack("<B", len(folder)) + folder.encode() + struct.pack("<B", len(files)), 4)
            for name, data in files:
                at, packed, size, stem, ext = spots[folder, name]
                table = pad(table + struct.pack("<HIII8sQ", index, at, len(packed), size, ext.encode(), fnv1a(data, 64)), 4)
                index += 1
        strings = b"".join(struct.pack("<B", len(n)) + n.encode() for n in names)
        head = b"PRDE" + struct.pack("<IIIIII", len(folders), 32 + len(body), 32, 32 + len(body) + len(table), len(strings), 0)
        return {self.name: head.ljust(32, b"\0") + body + table + strings}

    def read(self, files):
        f = files[self.name]
        count, p, base, names_at, names_size, _ = struct.unpack_from("<IIIIII", f, 4)
        names, q = [], names_at
        while q < names_at + names_size:
            names.append(f[q + 1:q + 1 + f[q]].decode())
            q += 1 + f[q]
        start, out = p, {}

        def align():
            nonlocal p
            p = start + (p - start + 3) // 4 * 4
        for _ in range(count):
            n = f[p]
            folder = f[p + 1:p + 1 + n].decode()
            entries = f[p + 1 + n]
            p += 2 + n
            align()
            for _ in range(entries):
                index, at, stored, size, ext, check = struct.unpack_from("<HIII8sQ", f, p)
                p += 30
                align()
                data = lzma.decompress(f[base + at:base + at + stored], format=lzma.FORMAT_ALONE)
                need(len(data) == size and fnv1a(data, 64) == check, "entry")
                out[(folder + "/" if folder else "") + names[index] + ("." + text(ext) if text(ext) else "")] = data
        return out


class Box:
    """Bins as a whole in XZ behind a header with sizes and a SHA-256."""
    name = "game.box"

    def write(self, items):
        inner = Bins().write(items)[Bins.name]
        packed = tool(["xz", "-c"], inner)
        return {self.name: b"BOX:" + struct.pack("<QQ", len(inner), len(packed)) + hashlib.sha256(packed).digest() + packed + b"tail"}

    def read(self, files):
        f = files[self.name]
        size, stored = struct.unpack_from("<QQ", f, 4)
        packed = f[52:52 + stored]
        need(hashlib.sha256(packed).digest() == f[20:52] and f[52 + stored:] == b"tail", "wrapper")
        inner = tool(["xz", "-d", "-c"], packed)
        need(len(inner) == size, "size")
        return Bins().read({Bins.name: inner})


class Safe:
    """A box in a safe: AES-192-ECB over the whole, with an Adler-32 of what is inside."""
    name = "game.safe"
    KEY = bytes(range(50, 74))

    def write(self, items):
        inner = Box().write(items)[Box.name]
        return {self.name: b"SAFE" + struct.pack("<I", zlib.adler32(inner)) + aes_blocks("aes-192-ecb", self.KEY, b"", inner)}

    def read(self, files):
        inner = aes_blocks("aes-192-ecb", self.KEY, b"", files[self.name][8:], True)
        need(zlib.adler32(inner) == struct.unpack_from("<I", files[self.name], 4)[0], "checksum")
        return Box().read({Box.name: inner})


LAYOUTS = {c.__name__.lower(): c for c in (Bins, Ledger, Trunk, Rows, Grove, Cipher, Index, Dump, Chunky, Flags, Twin, Parade, Box, Safe) + ordered.LAYOUTS + chunked.LAYOUTS}


def main():
    action, name, folder = sys.argv[1:4]
    layout = LAYOUTS[name]()
    if action == "write":
        chance = random.Random(int(sys.argv[4]))
        items = []
        for path, size in (("rides/horse.dds", 2500), ("rides/Swing.dds", 900), ("booths/tickets.bin", 0), ("lamp", 700), ("rides/copy.dds", 2500), ("signs/open.txt", 3001)):
            data = bytes(chance.randrange(256) if i % 5 else 7 for i in range(size)) if path != "signs/open.txt" else b"open daily " * 272 + b"always..."
            items.append((path, items[0][1] if path == "rides/copy.dds" else data))
        for file, data in layout.write(items).items():
            open(os.path.join(folder, file), "wb").write(data)
        for path, data in items:
            os.makedirs(os.path.dirname(os.path.join(folder, "plain", path)), exist_ok=True)
            open(os.path.join(folder, "plain", path), "wb").write(data)
    else:
        files = {f: open(os.path.join(folder, f), "rb").read() for f in os.listdir(folder) if os.path.isfile(os.path.join(folder, f))}
        for path, data in layout.read(files).items():
            target = os.path.join(sys.argv[4], path)
            os.makedirs(os.path.dirname(target), exist_ok=True)
            open(target, "wb").write(data)


main()
