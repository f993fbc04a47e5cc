"""An invented archive of textures without headers: sides, format and levels stand in its records.

    shelf.py write FILE SEED    writes it, and prints what is in it
    shelf.py read FILE          reads it, and prints what is in it: name, width, height, format, levels, SHA-1 of all levels
"""
import hashlib, random, struct, sys, zlib

FORMATS = {7: ("BC1", 4, 8), 9: ("BC3", 4, 16), 20: ("RGBA8", 1, 4), 0: (None, 1, 1)}


def levels_size(w, h, code, levels):
    name, block, size = FORMATS[code]
    total = 0
    for m in range(levels):
        a, b = max(1, w >> m), max(1, h >> m)
        total += ((a + block - 1) // block) * ((b + block - 1) // block) * size
    return total


def show(name, w, h, code, levels, data):
    print(name, w, h, FORMATS[code][0], levels, hashlib.sha1(data).hexdigest())


def write(file, seed):
    rnd = random.Random(seed)
    items = [(b"horse", 64, 32, 7, 7), (b"kit/swing", 16, 16, 20, 1), (b"tent", 40, 24, 9, 3), (b"list", 0, 0, 0, 0), (b"flag", 8, 4, 7, 1)]
    body, table, at = b"", b"", 12 + 44 * len(items)
    for name, w, h, code, levels in items:
        data = rnd.randbytes(levels_size(w, h, code, levels)) if w else b"horse\nkit/swing\n"
        packed = zlib.compress(data)
        table += struct.pack("<24sHHBBHIII", name, w, h, levels, code, 0xBEEF, at + len(body), len(packed), len(data))
        body += packed
        show(name.decode(), w, h, code, levels, data)
    open(file, "wb").write(b"SHLF" + struct.pack("<II", len(items), 2) + table + body)


def read(file):
    f = open(file, "rb").read()
    count, two = struct.unpack_from("<II", f, 4)
    assert f[:4] == b"SHLF" and two == 2
    for i in range(count):
        name, w, h, levels, code, mark, at, stored, size = struct.unpack_from("<24sHHBBHIII", f, 12 + 44 * i)
        data = zlib.decompress(f[at:at + stored])
        assert len(data) == size and mark == 0xBEEF and (not w or levels_size(w, h, code, levels) == size), name
        show(name.split(b"\0")[0].decode(), w, h, code, levels, data)


if sys.argv[1] == "write":
    write(sys.argv[2], int(sys.argv[3]))
else:
    read(sys.argv[2])
