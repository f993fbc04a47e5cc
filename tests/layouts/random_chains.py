"""Archives without a table, drawn at random, for drafting: random_chains.py SEED FOLDER [BYTES].

Each record stands in front of its own data. Writes what random_archives.py writes, and knows as little of sheets; what it draws is what one
meets (common practice)."""
import random, sys, zlib

from random_archives import Archive
from shared import deflate


class Chain(Archive):
    def __init__(self, seed, budget):
        self.r, self.about, self.budget = random.Random(seed), {}, budget
        draw = self.draw
        self.big = draw("byte order", ["little", "little", "little", "big"]) == "big"
        self.count = draw("records", [5, 12, 40, 150, 600, 3000])
        self.names = draw("names", ["fixed", "prefixed", "prefixed", "terminated", "terminated"])
        self.packing = draw("packing", ["none", "none", "none", "zlib", "deflate"])
        self.mixed = self.packing != "none" and draw("some stored", [True, False])
        self.align = draw("align", [1, 1, 1, 2, 4, 4, 16, 64, 2048])
        if self.count > 500:
            self.align = min(self.align, 16)
        self.ends = draw("ends", ["file", "file", "count", "nameless"])
        self.width = draw("bytes of a size", [4, 4, 4, 4, 8, 2])

    def write(self, folder):
        r = self.r
        room = self.draw("name bytes", [16, 24, 32, 56, 64, 100, 128, 260]) if self.names == "fixed" else 64
        prefix = self.draw("prefix", [1, 1, 2, 4]) if self.names == "prefixed" else 0
        leads = self.draw("size before the name", [True, True, False])
        plains = [self.content() for _ in range(self.count)]
        if self.width == 2:
            plains = [p[:60000] for p in plains]
        paths = [self.path(i, room) for i in range(self.count)]
        stored, flags = zip(*[self.packed(p) for p in plains])
        columns = ["stored"]
        if self.packing != "none" and (self.mixed or r.random() < 0.7):
            columns.append("plain")
        for extra, chance in (("time", 0.25), ("crc", 0.2), ("flags", 0.25), ("zero", 0.15), ("id", 0.15)):
            if r.random() < chance:
                columns.append(extra)
        if r.random() < 0.5:
            r.shuffle(columns)
        self.about["columns"] = columns
        # What stands before the name and what behind it: mostly all of it on one side.
        other = [c for c in columns if c != "stored" and r.random() < 0.15]
        self.about["on the other side"] = other
        times = r.randrange(1_000_000_000, 1_600_000_000)
        width = lambda c: self.width if c == "stored" else 4

        def numbers(i, which):
            out = bytearray()
            for c in which:
                out += self.number({"stored": lambda: len(stored[i]), "plain": lambda: len(plains[i]),
                                    "time": lambda: times + 977 * i % 5_000_000, "crc": lambda: zlib.crc32(plains[i]),
                                    "flags": lambda: flags[i] | 0x10, "zero": lambda: 0, "id": lambda: i + 1}[c](), width(c))
            return bytes(out)

        def record(name, near, far):
            name = name.encode()
            if self.names == "fixed":
                name = name.ljust(room, b"\0")
            elif self.names == "prefixed":
                name = self.number(len(name), prefix) + name
            else:
                name += b"\0"
            return near + name + far if leads else far + name + near

        mark = bytes(r.choice(b"ABCDEFGHKLMNPRSTUVWXYZ") for _ in range(4))
        fields = ["version"] if r.random() < 0.5 else []
        if self.ends == "count" or r.random() < 0.3:
            fields.append("count")
        if r.random() < 0.2:
            fields.append("zero")
        r.shuffle(fields)
        self.about["header"] = fields
        out = bytearray(mark)
        for f in fields:
            out += self.number({"version": r.randrange(1, 300), "count": self.count, "zero": 0}[f], 4)
        up = lambda: out.extend(bytes(-len(out) % self.align))
        up()
        main = [c for c in columns if c not in other]
        for i in range(self.count):
            out += record(paths[i], numbers(i, main), numbers(i, other))
            out += stored[i]
            up()
        if self.ends == "nameless":
            out += record("", bytes(len(numbers(0, main))), bytes(len(numbers(0, other))))
        ending = r.choice(["pak0", "bun", "res1", "dat", "vol", "arc1"])
        self.leave(folder, ending, out, paths, plains)


if __name__ == "__main__":
    Chain(int(sys.argv[1]), int(sys.argv[3]) if len(sys.argv) > 3 else 6_000_000).write(sys.argv[2])
