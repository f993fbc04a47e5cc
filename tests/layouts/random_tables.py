"""Archives with plain tables, or none, drawn at random, for drafting: random_tables.py SEED FOLDER [BYTES].

Their records say where an entry ends instead of how long it is, or one record more than entries closes the table; their number is the
file's first one, stands right before the records, or counts the closing one, too; names have fields of odd sizes. Or sizes stand in front of
data that has no names. Writes what random_archives.py writes, and knows as little of sheets; what it draws is what one meets (common
practice)."""
import random, sys

from random_archives import Archive


class Plain(Archive):
    def __init__(self, seed, budget):
        self.r, self.about, self.budget = random.Random(seed), {}, budget
        draw = self.draw
        self.big = draw("byte order", ["little", "little", "little", "big"]) == "big"
        self.count = int(4 * 500 ** self.r.random())
        self.about["records"] = self.count
        self.packing, self.mixed = "none", False
        self.places = draw("places", ["end", "end", "last", "last", "closing", "closing", "closing", "sizes in front"])
        self.names = draw("names", ["fixed", "fixed", "fixed", "terminated", "prefixed"])
        self.align = draw("align", [1, 1, 1, 4, 16])
        self.count_at = draw("count", ["first", "first", "behind the mark", "before the records"])
        self.count_bytes = draw("bytes of the count", [2, 4, 4])
        self.where = "behind" if self.count_at == "before the records" else draw("table", ["front", "front", "front", "behind"])
        self.base = draw("counted from", ["file", "file", "file", "data"])

    def up(self, out):
        out += bytes(-len(out) % self.align)

    def write(self, folder):
        r = self.r
        plains = [self.content() for _ in range(self.count)]
        if self.places == "sizes in front":
            whole = self.in_front(plains)
            paths = ["-"] * self.count
        else:
            room = self.draw("name bytes", [8, 9, 12, 13, 13, 16, 20, 32]) if self.names == "fixed" else 40
            paths = [self.path(i, room) for i in range(self.count)]
            whole = self.with_table(paths, plains, room)
        ending = r.choice(["res", "dat", "pk", "lib", "grp1", "vol"])
        self.leave(folder, ending, whole, paths, plains)

    def in_front(self, plains):
        r = self.r
        itself = self.draw("a size counts itself", [True, False, False])
        head = self.draw("header", [0, 0, 4, 8])
        out = bytearray(r.randbytes(4) + self.number(len(plains), 4))[:head]
        for plain in plains:
            out += self.number(len(plain) + (4 if itself else 0), 4) + plain
        return bytes(out)

    def with_table(self, paths, plains, room):
        r = self.r
        leads = self.draw("numbers before the name", [True, False])
        columns = ["offset"] if self.places == "closing" else ["offset", "end"]
        for extra, chance in (("one", 0.25), ("zero", 0.15), ("id", 0.15)):
            if r.random() < chance:
                columns.append(extra)
        if r.random() < 0.3:
            r.shuffle(columns)
        self.about["columns"] = columns

        # Where a closing record says the end, padding would belong to the entry.
        if self.places == "closing":
            self.align = 1
        data, places = bytearray(), []
        for plain in plains:
            self.up(data)
            places.append(len(data))
            data += plain

        def name_bytes(name):
            name = name.encode()
            if self.names == "fixed":
                return name.ljust(room, b"\0")
            return self.number(len(name), 1) + name if self.names == "prefixed" else name + b"\0"

        def table(start):
            out = bytearray()
            for i in range(self.count + (self.places == "closing")):
                closes = i == self.count
                at = len(data) if closes else places[i]
                size = 0 if closes else len(plains[i])
                value = {"offset": start + at, "end": start + at + size - (self.places == "last"), "one": 1, "zero": 0, "id": i + 1}
                numbers = b"".join(self.number(0 if closes and c != "offset" else value[c], 4) for c in columns)
                name = name_bytes("" if closes else paths[i])
                out += numbers + name if leads else name + numbers
            return bytes(out)

        counts_closing = self.places == "closing" and self.draw("the count has the closing one", [True, False, False])
        count = self.number(self.count + counts_closing, self.count_bytes)
        mark = bytes(r.choice(b"ABCDEFGHKLMNPRSTUVWXYZ") for _ in range(4))
        in_file = self.base == "file"
        length = len(table(0))
        if self.where == "front":
            head = count if self.count_at == "first" else mark + count
            start = len(head) + length
            whole = bytearray(head) + table(start if in_file else 0)
            if self.align > 1 and in_file:
                # The data begins at a multiple, too.
                start += -start % self.align
                whole = bytearray(head) + table(start)
                whole += bytes(start - len(whole))
            return bytes(whole + data)
        # The header says where the table is.
        head_bytes = (self.count_bytes if self.count_at != "before the records" else 0) + (0 if self.count_at == "first" else 4) + 4
        start = head_bytes + (-head_bytes % self.align)
        table_at = start + len(data)
        pointer = self.number(table_at, 4)
        head = {"first": count + pointer, "behind the mark": mark + count + pointer, "before the records": mark + pointer}[self.count_at]
        whole = bytearray(head) + bytes(start - len(head)) + data
        if self.count_at == "before the records":
            whole += count
        return bytes(whole + table(start if in_file else 0))


if __name__ == "__main__":
    Plain(int(sys.argv[1]), int(sys.argv[3]) if len(sys.argv) > 3 else 1_000_000).write(sys.argv[2])
