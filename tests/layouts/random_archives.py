"""Archives whose layout is drawn at random, for drafting: random_archives.py SEED FOLDER [BYTES].

Writes FOLDER/game.<ending> (and data files beside it), FOLDER/truth.txt with a line for each entry in the order of the records, its
path (or "-" where the archive has no names) and its content's SHA-256, and FOLDER/about.txt with what was drawn. It knows nothing of
sheets: what it draws is what one meets (common practice), each feature by itself."""
import hashlib, os, random, struct, sys, zlib

from shared import deflate, fnv1a

WORDS = ("horse tent ticket lantern swing wagon drum banner wheel stall rope bell crown feather cart mirror organ parade ribbon candy "
         "clown tower gate bench flag puppet whistle barrel fence").split()
FOLDERS = "rides booths signs people ground sky ui props".split()
ENDINGS = "dds tga png txt mesh wav anim mat".split()


def lz4(data):
    """A greedy packer for LZ4 blocks (as the LZ4 block format documents them: the last five bytes are literals, the last match begins
    twelve bytes before the end or earlier)."""
    out, seen, at, start, n = bytearray(), {}, 0, 0, len(data)

    def put(literals, match):
        a, b = len(literals), 0 if match is None else match[1] - 4
        out.append(min(a, 15) << 4 | min(b, 15))
        rest = a - 15
        while rest >= 0:
            out.append(min(rest, 255))
            rest -= 255
        out.extend(literals)
        if match is None:
            return
        out.extend(struct.pack("<H", match[0]))
        rest = b - 15
        while rest >= 0:
            out.append(min(rest, 255))
            rest -= 255
    while at + 12 < n:
        four = data[at:at + 4]
        before = seen.get(four)
        seen[four] = at
        if before is None or at - before > 65535:
            at += 1
            continue
        length = 4
        while at + length < n - 5 and data[before + length] == data[at + length]:
            length += 1
        put(data[start:at], (at - before, length))
        at += length
        start = at
    put(data[start:], None)
    return bytes(out)


def xor(data, key, at=0):
    key = key[at % len(key):] + key[:at % len(key)]
    whole = (key * (len(data) // len(key) + 1))[:len(data)]
    return (int.from_bytes(data, "little") ^ int.from_bytes(whole, "little")).to_bytes(len(data), "little")


class Archive:
    def __init__(self, seed, bytes_of_content=6_000_000):
        self.budget = bytes_of_content
        self.r = r = random.Random(seed)
        self.about = {}
        draw = self.draw
        self.big = draw("big", [True, False, False])
        self.count = int(20 * 3000 ** r.random()) if r.random() < 0.8 else r.randrange(20, 200)
        self.about["count"] = self.count
        self.names = draw("names", ["fixed", "fixed", "fixed", "prefixed", "terminated", "terminated", "table", "table in order", "hash", "none"])
        self.packing = draw("packing", ["none", "none", "none", "zlib", "zlib", "deflate", "lz4"])
        if self.packing == "lz4":
            self.count = min(self.count, 300)
        self.mixed = self.packing != "none" and draw("mixed", [True, False, False])
        self.places = draw("places", ["offset and size", "offset and size", "offset and size", "offset and size", "count + 1", "next", "sizes"])
        self.where = draw("table", ["front", "front", "front", "behind", "behind", "footer"])
        self.separate = self.where == "front" and draw("data beside", [True, False, False, False, False, False])
        self.align = draw("align", [1, 1, 1, 4, 16, 32, 64, 512, 2048])
        if self.count > 5000:
            self.align = min(self.align, 16)
        self.unit = self.align if self.align > 4 and self.places == "offset and size" and draw("in units", [True, False, False]) else 1
        self.shuffled = self.places == "offset and size" and draw("shuffled", [True, False, False])
        self.wide = draw("offsets of 8 bytes", [True, False, False, False, False])
        self.base = draw("counted from", ["file", "file", "file", "data"])
        key_scope = draw("xor", [None] * 8 + ["data", "table and data", "file"])
        self.key = bytes(r.randrange(1, 256) for _ in range(r.choice([1, 2, 4, 5, 8]))) if key_scope else b""
        self.scope = key_scope
        if self.key:
            self.about["key"] = self.key.hex()

    def draw(self, what, choices):
        self.about[what] = got = self.r.choice(choices)
        return got

    def leave(self, folder, ending, whole, paths, plains):
        """The archive, what is in it (a path "-" where it has no names), and what was drawn."""
        os.makedirs(folder, exist_ok=True)
        with open(os.path.join(folder, "game." + ending), "wb") as f:
            f.write(whole)
        with open(os.path.join(folder, "truth.txt"), "w") as f:
            for path, plain in zip(paths, plains):
                f.write("%s\t%s\n" % (path, hashlib.sha256(plain).hexdigest()))
        with open(os.path.join(folder, "about.txt"), "w") as f:
            f.write("".join("%s: %s\n" % item for item in self.about.items()))
            f.write("archive: game.%s\nsize: %d\n" % (ending, len(whole)))

    def number(self, value, width):
        return value.to_bytes(width, "big" if self.big else "little")

    def path(self, i, room):
        r = self.r
        if room < 24:
            return ("%s%03d" % (r.choice(WORDS)[:max(1, room - 5)], i))[-(room - 1):].upper() if room < 12 else "%s%d.%s" % (
                r.choice(WORDS)[:4], i, r.choice(ENDINGS)[:3])
        depth = r.choice([1, 1, 2, 3]) if room >= 48 else r.choice([0, 1]) if room >= 32 else 0
        folders = [r.choice(FOLDERS) for _ in range(depth)]
        return "/".join(folders + ["%s_%s_%d.%s" % (r.choice(WORDS), r.choice(WORDS)[:5], i, r.choice(ENDINGS))])[-(room - 1):]

    def content(self):
        r = self.r
        budget = self.budget if self.packing != "lz4" else 500_000
        mean = max(24, min(self.budget // 100, budget // self.count))
        n = int(mean * r.choice([0.1, 0.3, 0.6, 1, 1, 1.4, 2.4])) + r.randrange(1, 40)
        kind = r.randrange(5)
        if kind == 0:
            return " ".join(r.choice(WORDS) for _ in range(n // 6 + 1)).encode()[:n]
        if kind == 1:
            head = r.choice([b"DDS ", b"MESH", b"RIFF", b"ANIM"]) + struct.pack("<III", n, r.randrange(1, 8), 0)
            return (head + r.randbytes(n // 2) + bytes(n))[:max(n, 16)]
        if kind == 2:  # numbers that change slowly
            v, out = 0.0, bytearray()
            while len(out) < n:
                v += r.uniform(-1, 1)
                out += struct.pack("<f", v)
            return bytes(out[:n])
        if kind == 3:
            return bytes(r.choice(b"\x00\x01\x02\x10") for _ in range(min(n, 4000))) * (n // 4000 + 1)
        return r.randbytes(n)

    def packed(self, plain):
        if self.packing == "none":
            return plain, 0
        out = {"zlib": zlib.compress, "deflate": deflate, "lz4": lz4}[self.packing](plain)
        if self.mixed and len(out) >= len(plain):
            return plain, 0
        return out, 1

    def write(self, folder):
        r = self.r
        room = self.draw("name bytes", [8, 16, 24, 32, 48, 64, 100, 128, 260]) if self.names == "fixed" else 64
        prefix = self.draw("prefix", [1, 2, 4]) if self.names == "prefixed" else 0
        leads = self.draw("numbers before the name", [True, False, False]) if self.names != "fixed" else self.draw("numbers before the name", [True] + [False] * 5)
        plains = [self.content() for _ in range(self.count)]
        paths = [self.path(i, room) for i in range(self.count)]
        stored, flags = zip(*[self.packed(p) for p in plains])
        # Which numbers a record has, in an order of their own.
        columns = ["offset"] if self.places != "sizes" else []
        if self.places in ("offset and size", "sizes"):
            columns.append("stored")
        if self.packing != "none" and (self.packing == "lz4" or self.mixed or r.random() < 0.7):
            columns.append("plain")
        if self.names == "table":
            columns.append("name")
        if self.names == "hash":
            columns.append("hash")
        for extra, chance in (("time", 0.25), ("crc", 0.2), ("flags", 0.3), ("zero", 0.2), ("id", 0.15)):
            if r.random() < chance:
                columns.append(extra)
        if r.random() < 0.5:
            r.shuffle(columns)
        self.about["columns"] = columns
        hash_bytes = self.draw("hash bytes", [4, 8]) if "hash" in columns else 4
        wide = 8 if self.wide else 4
        width = lambda c: wide if c == "offset" else hash_bytes if c == "hash" else 4

        # Data first, to know where everything is, counted from where data begins.
        order = list(range(self.count))
        if self.shuffled:
            r.shuffle(order)
        data, places = bytearray(), [0] * self.count
        for i in order:
            while len(data) % self.align:
                data.append(0)
            places[i] = len(data)
            data += stored[i]
        if self.places in ("count + 1", "next", "sizes"):  # nothing says where padding begins: it belongs to the entry
            self.align = 1
            data, at = bytearray(b"".join(stored)), 0
            for i in range(self.count):
                places[i] = at
                at += len(stored[i])
        total = len(data)

        blob, name_at = bytearray(), []
        if self.names.startswith("table"):
            for p in paths:
                name_at.append(len(blob))
                blob += p.encode() + b"\0"

        def table(data_at):
            out = bytearray()
            start = data_at if self.base == "file" else 0
            times = r.randrange(1_000_000_000, 1_600_000_000)
            for i in range(self.count):
                numbers = bytearray()
                for c in columns:
                    value = {"offset": lambda: (start + places[i]) // self.unit, "stored": lambda: len(stored[i]),
                             "plain": lambda: len(plains[i]), "name": lambda: name_at[i],
                             "hash": lambda: fnv1a(paths[i].encode(), 8 * hash_bytes), "time": lambda: times + 977 * i % 5_000_000,
                             "crc": lambda: zlib.crc32(plains[i]), "flags": lambda: flags[i] | 0x10, "zero": lambda: 0,
                             "id": lambda: i + 1}[c]()
                    numbers += self.number(value, width(c))
                name = paths[i].encode()
                if self.names == "fixed":
                    name = name.ljust(room, b"\0")
                elif self.names == "prefixed":
                    name = self.number(len(name), prefix) + name
                elif self.names == "terminated":
                    name += b"\0"
                else:
                    name = b""
                out += numbers + name if leads else name + numbers
            if self.places == "count + 1":
                value = (start + total) // self.unit
                numbers = b"".join(self.number(value if c == "offset" else 0, width(c)) for c in columns)
                if self.names in ("fixed", "none", "hash", "table", "table in order"):
                    empty = bytes(room) if self.names == "fixed" else b""
                    out += numbers + empty if leads else empty + numbers
                else:
                    out += (bytes(prefix or 1) if not leads else b"") + numbers + (bytes(prefix or 1) if leads else b"")
            return bytes(out)

        mark = r.choice([r.choice(WORDS)[:4].upper().encode().ljust(4, b"1"), r.randbytes(4), r.choice(WORDS)[:4].encode().ljust(4, b"\0") + struct.pack("<I", 2)])
        fields = ["count"]
        blob_behind = bool(blob) and self.draw("names behind the table", [True, False])
        if self.where == "front":
            if r.random() < 0.4:
                fields.append("table")
        else:
            fields.append("table")
        for extra, chance in (("version", 0.5), ("data", 0.4), ("file", 0.25), ("table bytes", 0.25), ("names", 0.6 if blob else 0),
                              ("zeros", 0.4), ("other", 0.3)):
            if r.random() < chance:
                fields.append(extra)
        if blob and "names" not in fields and (self.where != "front"):
            fields.append("names")
        r.shuffle(fields)
        self.about["header"] = fields
        sizes = {"zeros": 4 * r.randrange(1, 5)}
        head_bytes = len(mark) + sum(sizes.get(f, 4) for f in fields)
        self.count_says = self.count + (1 if self.places == "count + 1" and r.random() < 0.3 else 0)

        state = r.getstate()
        t = table(0)
        middle = [bytes(t), bytes(blob)] if blob_behind else [bytes(blob), bytes(t)]
        tables = len(t) + len(blob)
        up = lambda n: (n + self.align - 1) // self.align * self.align
        if self.where == "front":
            first, data_at = head_bytes, 0 if self.separate else up(head_bytes + tables)
        else:
            data_at = up(head_bytes) if self.where == "behind" else 0
            first = data_at + total
        table_at = first + (0 if blob_behind else len(blob))
        names_at = first + (len(t) if blob_behind else 0)
        r.setstate(state)
        t = table(data_at)
        size = head_bytes + tables + (0 if self.separate else up(head_bytes + tables) - head_bytes - tables + total) if self.where == "front" else (
            first + tables + (head_bytes if self.where == "footer" else 0))
        values = {"count": self.count, "table": table_at, "version": r.randrange(1, 300), "data": data_at, "file": size,
                  "table bytes": len(t), "names": names_at, "other": r.randrange(1 << 31)}
        head = b"".join(bytes(sizes["zeros"]) if f == "zeros" else self.number(values[f], 4) for f in fields)
        head = head + mark if self.where == "footer" else mark + head
        tables_now = (t + bytes(blob)) if blob_behind else bytes(blob) + t
        data = bytes(data)
        if self.scope == "data" or self.scope == "table and data":
            # Each by itself, as a reader does that opens a file by its entry; the tables as one.
            hidden = bytearray(data)
            for i in range(self.count):
                hidden[places[i]:places[i] + len(stored[i])] = xor(stored[i], self.key)
            data = bytes(hidden)
        if self.scope == "table and data":
            tables_now = xor(tables_now, self.key)
        if self.where == "front":
            whole = head + tables_now
            if not self.separate:
                whole = whole.ljust(data_at, b"\0") + data
        elif self.where == "behind":
            whole = head.ljust(data_at, b"\0") + data + tables_now
        else:
            whole = data + tables_now + head
        assert len(whole) == size, (len(whole), size)
        if self.scope == "file":
            whole, data = xor(whole, self.key), xor(data, self.key)
        ending = r.choice(["pak0", "bun", "res1", "dat", "vol", "arc1"])
        named = self.names not in ("hash", "none")
        self.leave(folder, ending, whole, paths if named else ["-"] * self.count, plains)
        if self.separate:
            with open(os.path.join(folder, "game.bin"), "wb") as f:
                f.write(data)


if __name__ == "__main__":
    Archive(int(sys.argv[1]), int(sys.argv[3]) if len(sys.argv) > 3 else 6_000_000).write(sys.argv[2])
