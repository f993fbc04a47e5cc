"""Invented texture layouts, each with a writer and a reader of its own that share nothing with Skivet.

    textures.py write NAME FOLDER SEED  FOLDER/NAME.zip with the texture's files, FOLDER/plain/NAME/LAYER_FACE_MIP: its levels, row by row
    textures.py read NAME FOLDER OUT    the levels of FOLDER/NAME.zip below OUT; sizes and checksums are checked

A level is width x height units (texels, or blocks of 4 x 4) of a fixed number of bytes.
"""
import os, random, struct, sys, zipfile, zlib


def up(value, step):
    return (value + step - 1) // step * step


def side(value, mip):
    return max(1, value >> mip)


def units(width, height, block):
    return (width + block - 1) // block, (height + block - 1) // block


def pow2(value):
    return 1 << (value - 1).bit_length()


def morton(x, y, across, down):
    """Bits of x and y in turns, x first; above the shorter side's bits those of the longer one."""
    out = shift = 0
    a, b = pow2(across).bit_length() - 1, pow2(down).bit_length() - 1
    for bit in range(max(a, b)):
        if bit < a:
            out |= (x >> bit & 1) << shift
            shift += 1
        if bit < b:
            out |= (y >> bit & 1) << shift
            shift += 1
    return out


def gob(x, y, rows):
    if rows == 4:
        return y * 64 + x
    out = x & 15
    for place, bit in ((4, y & 1), (5, x >> 4 & 1), (6, y >> 1 & 1), (7, y >> 2 & 1), (8, x >> 5 & 1)):
        out |= bit << place
    return out


def block_height(stated, rows, down):
    while stated > 1 and down <= rows * stated // 2:
        stated //= 2
    return stated


def block_linear(data, across, down, size, stated, rows, back=False, tiled=None):
    """Both ways, one byte at a time."""
    height = block_height(stated, rows, down)
    line, gobs = across * size, up(across * size, 64) // 64
    tall = rows * height
    out = bytearray(across * down * size) if back else bytearray(gobs * up(down, tall) * 64)
    for y in range(down):
        for x in range(line):
            at = (y // tall * gobs + x // 64) * 64 * tall + y % tall // rows * 64 * rows + gob(x % 64, y % rows, rows)
            if back:
                out[y * line + x] = data[at]
            else:
                out[at] = data[y * line + x]
    return bytes(out)


class Layout:
    """name, unit bytes, block side, width, height, levels, layers, faces."""

    def __init__(self, name, size, block, width, height, levels, layers=1, faces=1):
        self.__dict__.update(locals())

    def keys(self):
        return [(l, f, m) for l in range(self.layers) for f in range(self.faces) for m in range(self.levels)]

    def grid(self, mip):
        return units(side(self.width, mip), side(self.height, mip), self.block)

    def content(self, rnd):
        return {k: rnd.randbytes(self.grid(k[2])[0] * self.grid(k[2])[1] * self.size) for k in self.keys()}


# ---- poster: sides by powers and by one less, color in the format's name, rows of 32 bytes, small levels together, none below 4 texels
POSTER = Layout("poster", 4, 1, 64, 40, 5)


def poster_places():
    places, at = [], 0
    for mip in range(POSTER.levels):
        w, h = POSTER.grid(mip)
        if max(w, h) > 8 or max(side(64, mip - 1), side(40, mip - 1)) > 8:
            at = up(at, 256)
        places.append((at, up(w * 4, 32), w * 4, h))
        at += up(w * 4, 32) * h
    return places, at


def poster_write(levels):
    places, total = poster_places()
    body = bytearray(b"\xEE" * total)
    for mip, (at, pitch, row, h) in enumerate(places):
        for y in range(h):
            body[at + y * pitch:at + y * pitch + row] = levels[0, 0, mip][y * row:y * row + row]
    return {"wall.pst": b"PSTR" + bytes([6, 39, 7, 2]) + struct.pack("<II", len(body), zlib.crc32(body)) + bytes(body)}


def poster_read(files):
    data = files["wall.pst"]
    assert data[:8] == b"PSTR" + bytes([6, 39, 7, 2])
    body = data[16:]
    assert struct.unpack("<II", data[8:16]) == (len(body), zlib.crc32(body)), "checksum"
    places, total = poster_places()
    assert total == len(body)
    out = {}
    for mip, (at, pitch, row, h) in enumerate(places):
        out[0, 0, mip] = b"".join(body[at + y * pitch:at + y * pitch + row] for y in range(h))
        for y in range(h):
            assert body[at + y * pitch + row:at + (y + 1) * pitch] == b"\xEE" * (pitch - row), "padding"
    return out


# ---- mosaic: a cubemap in Morton order, the smallest level first, texels stored alpha, red, green, blue, big-endian header
MOSAIC = Layout("mosaic", 4, 1, 16, 16, 5, faces=6)


def swap(data, order):
    out = bytearray(len(data))
    for i in range(0, len(data), 4):
        for k in range(4):
            out[i + k] = data[i + order[k]]
    return bytes(out)


def mosaic_write(levels):
    body = b""
    for face in range(6):
        for mip in reversed(range(5)):
            w, h = MOSAIC.grid(mip)
            tiled = bytearray(w * h * 4)
            texels = swap(levels[0, face, mip], (3, 0, 1, 2))
            for y in range(h):
                for x in range(w):
                    at = morton(x, y, w, h) * 4
                    tiled[at:at + 4] = texels[(y * w + x) * 4:(y * w + x) * 4 + 4]
            body += bytes(tiled)
    return {"sky.msc": b"MS" + struct.pack(">HHH", 16, 16, 5) + body}


def mosaic_read(files):
    data = files["sky.msc"]
    assert data[:8] == b"MS" + struct.pack(">HHH", 16, 16, 5)
    out, pos = {}, 8
    for face in range(6):
        for mip in reversed(range(5)):
            w, h = MOSAIC.grid(mip)
            tiled, texels = data[pos:pos + w * h * 4], bytearray(w * h * 4)
            pos += w * h * 4
            for y in range(h):
                for x in range(w):
                    at = morton(x, y, w, h) * 4
                    texels[(y * w + x) * 4:(y * w + x) * 4 + 4] = tiled[at:at + 4]
            out[0, face, mip] = swap(bytes(texels), (1, 2, 3, 0))
    assert pos == len(data)
    return out


# ---- slab: an array of BC1 in block-linear order; block height and rows of a GOB are header fields
SLAB = Layout("slab", 8, 4, 128, 96, 3, layers=2)
SLAB_HEIGHT, SLAB_ROWS = 4, 4


def slab_span(mip):
    w, h = SLAB.grid(mip)
    height = block_height(SLAB_HEIGHT, SLAB_ROWS, h)
    return up(w * 8, 64) * up(h, SLAB_ROWS * height), 64 * SLAB_ROWS * height


def slab_write(levels):
    body = b""
    for layer, face, mip in SLAB.keys():
        w, h = SLAB.grid(mip)
        body += b"\0" * (-len(body) % slab_span(mip)[1])
        body += block_linear(levels[layer, face, mip], w, h, 8, SLAB_HEIGHT, SLAB_ROWS)
    return {"floor.slb": struct.pack("<4sHHBBBBI", b"SLAB", 128, 96, 3, 2, 2, SLAB_ROWS, 0xFEEDBEEF) + body}


def slab_read(files):
    data = files["floor.slb"]
    assert data[:16] == struct.pack("<4sHHBBBBI", b"SLAB", 128, 96, 3, 2, 2, SLAB_ROWS, 0xFEEDBEEF)
    body, at, out = data[16:], 0, {}
    for layer, face, mip in SLAB.keys():
        w, h = SLAB.grid(mip)
        size, step = slab_span(mip)
        at = up(at, step)
        out[layer, face, mip] = block_linear(body[at:at + size], w, h, 8, SLAB_HEIGHT, SLAB_ROWS, back=True)
        at += size
    assert at == len(body)
    return out


# ---- strand: the two largest levels in a zlib file each, named by level
STRAND = Layout("strand", 8, 4, 64, 64, 7)


def strand_write(levels):
    files = {"kit/rope.str": struct.pack("<4sHHB3x", b"STRD", 64, 64, 7) + b"".join(levels[0, 0, m] for m in range(2, 7)) + b"tail"}
    for mip in range(2):
        files["kit/rope.m%02d" % mip] = zlib.compress(levels[0, 0, mip], 9)
    return files


def strand_read(files):
    data = files["kit/rope.str"]
    assert data[:12] == struct.pack("<4sHHB3x", b"STRD", 64, 64, 7) and data[-4:] == b"tail"
    out, at = {}, 12
    for mip in range(7):
        w, h = STRAND.grid(mip)
        if mip < 2:
            out[0, 0, mip] = zlib.decompress(files["kit/rope.m%02d" % mip])
            assert len(out[0, 0, mip]) == w * h * 8
            continue
        out[0, 0, mip] = data[at:at + w * h * 8]
        at += w * h * 8
    assert at == len(data) - 4
    return out


# ---- stack: as many of the largest levels as the header says in one file beside; a stated row pitch; two layers
STACK = Layout("stack", 2, 1, 20, 12, 4, layers=2)


def stack_rows(data, w, h, pitch):
    return b"".join(data[y * w * 2:(y + 1) * w * 2].ljust(pitch, b"\x11") for y in range(h))


def stack_write(levels):
    def level(layer, mip):
        w, h = STACK.grid(mip)
        return stack_rows(levels[layer, 0, mip], w, h, 48 if mip == 0 else w * 2)
    own = b"".join(level(l, m) for l in range(2) for m in range(2, 4))
    top = b"".join(level(l, m) for l in range(2) for m in range(2))
    return {"a/tile.stk": struct.pack("<4sHHBBBBH", b"STCK", 20, 12, 4, 2, 2, 0, 48) + own, "a/tile.stk.top": top}


def stack_read(files):
    out = {}
    head = struct.pack("<4sHHBBBBH", b"STCK", 20, 12, 4, 2, 2, 0, 48)
    assert files["a/tile.stk"][:14] == head
    for data, mips in ((files["a/tile.stk"][14:], (2, 3)), (files["a/tile.stk.top"], (0, 1))):
        at = 0
        for layer in range(2):
            for mip in mips:
                w, h = STACK.grid(mip)
                pitch = 48 if mip == 0 else w * 2
                rows = data[at:at + pitch * h]
                at += pitch * h
                out[layer, 0, mip] = b"".join(rows[y * pitch:y * pitch + w * 2] for y in range(h))
                assert all(rows[y * pitch + w * 2:(y + 1) * pitch] == b"\x11" * (pitch - w * 2) for y in range(h)), "padding"
        assert at == len(data)
    return out


# ---- bare: no header at all; what it is, is the same for all files of its name
BARE = Layout("bare", 1, 1, 24, 16, 5)


def bare_write(levels):
    return {"masks/cloth.mask": b"".join(levels[0, 0, m] for m in range(5))}


def bare_read(files):
    out, at, data = {}, 0, files["masks/cloth.mask"]
    for mip in range(5):
        w, h = BARE.grid(mip)
        out[0, 0, mip] = data[at:at + w * h]
        at += w * h
    assert at == len(data)
    return out


# ---- pictures whose texels are numbers of palette entries: the levels are the colors
class Numbers(Layout):
    def __init__(self, name, width, height, levels, palette, parts):
        super().__init__(name, parts, 1, width, height, levels)
        self.palette = palette

    def content(self, rnd):
        return {k: b"".join(rnd.choice(self.palette) for _ in range(self.grid(k[2])[0] * self.grid(k[2])[1])) for k in self.keys()}

    def numbers(self, level):
        return [self.palette.index(level[i:i + self.size]) for i in range(0, len(level), self.size)]

    def colors(self, numbers):
        return b"".join(self.palette[n] for n in numbers)


# ---- card: 4-bit numbers, the first in the highest bits, in tiles of 8 x 8 texels and 32 bytes; 16 colors of 5, 6 and 5 bits at the end
CARD_WORDS = [(i * 4111 + 37) % 65536 for i in range(16)]


def rgb565(word):
    r, g, b = word >> 11, word >> 5 & 63, word & 31
    return bytes([round(r * 255 / 31), round(g * 255 / 63), round(b * 255 / 31)])


CARD = Numbers("card", 20, 12, 1, [rgb565(w) for w in CARD_WORDS], 3)


def card_write(levels):
    numbers, body = CARD.numbers(levels[0, 0, 0]), bytearray()
    for ty in range(2):
        for tx in range(3):
            tile = [numbers[y * 20 + x] if y < 12 and x < 20 else 0 for y in range(ty * 8, ty * 8 + 8) for x in range(tx * 8, tx * 8 + 8)]
            body += bytes(tile[i] << 4 | tile[i + 1] for i in range(0, 64, 2))
    return {"hud/ace.card": b"CARD" + struct.pack("<HH", 20, 12) + bytes(body) + struct.pack("<16H", *CARD_WORDS)}


def card_read(files):
    data = files["hud/ace.card"]
    assert len(data) == 8 + 6 * 32 + 32 and data[-32:] == struct.pack("<16H", *CARD_WORDS), "palette"
    out = []
    for y in range(12):
        for x in range(20):
            at = (y // 8 * 3 + x // 8) * 64 + y % 8 * 8 + x % 8
            byte = data[8 + at // 2]
            out.append(byte & 15 if at % 2 else byte >> 4)
    return {(0, 0, 0): CARD.colors(out)}


# ---- scroll: 8-bit numbers, the lowest row first, run lengths; the palette of 200 colors behind the header
SCROLL = Numbers("scroll", 30, 11, 1, [bytes([i, 255 - i, i * 7 % 256]) for i in range(200)], 3)


def runs(data):
    """0 to 127: so many and one more bytes follow; 128 to 255: the next byte stands control - 126 times."""
    out, at = b"", 0
    while at < len(data):
        n = 1
        while at + n < len(data) and n < 129 and data[at + n] == data[at]:
            n += 1
        if n >= 2:
            out += bytes([126 + n, data[at]])
        else:
            while at + n < len(data) and n < 128 and data[at + n] != data[at + n - 1]:
                n += 1
            out += bytes([n - 1]) + data[at:at + n]
        at += n
    return out


def unruns(data):
    out, at = b"", 0
    while at < len(data):
        c = data[at]
        out += data[at + 1:at + 2 + c] if c < 128 else data[at + 1:at + 2] * (c - 126)
        at += 2 + c if c < 128 else 2
    return out


def scroll_write(levels):
    numbers = bytes(SCROLL.numbers(levels[0, 0, 0]))
    body = runs(b"".join(numbers[y * 30:y * 30 + 30] for y in reversed(range(11))))
    return {"a.scroll": b"SCRL" + struct.pack("<BBHII", 30, 11, 200, len(body), zlib.crc32(body)) + b"".join(SCROLL.palette) + body + b"end"}


def scroll_read(files):
    data = files["a.scroll"]
    w, h, n, size, crc = struct.unpack("<BBHII", data[4:16])
    body = data[16 + 3 * n:-3]
    assert (w, h, n, size) == (30, 11, 200, len(body)) and zlib.crc32(body) == crc and data[-3:] == b"end", "header"
    assert data[16:16 + 600] == b"".join(SCROLL.palette), "palette"
    rows = unruns(body)
    return {(0, 0, 0): SCROLL.colors(b"".join(rows[y * 30:y * 30 + 30] for y in reversed(range(11))))}


# ---- badge: 2-bit numbers in rows of whole bytes, two levels, the palette in a file beside, behind 5 other bytes
BADGE = Numbers("badge", 13, 6, 2, [bytes([0, 0, 0, 0]), bytes([9, 200, 30, 255]), bytes([250, 1, 2, 128]), bytes([9, 200, 30, 254])], 4)


def badge_write(levels):
    body = b""
    for mip in range(2):
        w, h = BADGE.grid(mip)
        numbers = BADGE.numbers(levels[0, 0, mip])
        for y in range(h):
            row = numbers[y * w:y * w + w] + [0] * 3
            body += bytes(row[i] | row[i + 1] << 2 | row[i + 2] << 4 | row[i + 3] << 6 for i in range(0, w, 4))
    return {"a/x.badge": b"BDG" + bytes([13, 6]) + body, "a/shared.colors": b"COLOR" + b"".join(BADGE.palette) + b"more"}


def badge_read(files):
    assert files["a/shared.colors"] == b"COLOR" + b"".join(BADGE.palette) + b"more"
    data, at, out = files["a/x.badge"], 5, {}
    for mip in range(2):
        w, h = BADGE.grid(mip)
        pitch = (w + 3) // 4
        out[0, 0, mip] = BADGE.colors([data[at + y * pitch + x // 4] >> x % 4 * 2 & 3 for y in range(h) for x in range(w)])
        at += pitch * h
    assert at == len(data)
    return out


# ---- loom: columns from left to right, each from the lowest texel up, padded to 8 bytes; zlib around all levels
LOOM = Layout("loom", 4, 1, 18, 7, 3)


def loom_write(levels):
    body = b""
    for mip in range(3):
        w, h = LOOM.grid(mip)
        for x in range(w):
            column = b"".join(levels[0, 0, mip][(y * w + x) * 4:(y * w + x) * 4 + 4] for y in reversed(range(h)))
            body += column + b"\0" * (-len(column) % 8)
    return {"cloth.loom": b"LO" + struct.pack(">HH", 18, 7) + zlib.compress(body)}


def loom_read(files):
    data, at, out = zlib.decompress(files["cloth.loom"][6:]), 0, {}
    for mip in range(3):
        w, h = LOOM.grid(mip)
        level, pitch = bytearray(w * h * 4), up(h * 4, 8)
        for x in range(w):
            for y in range(h):
                level[(y * w + x) * 4:(y * w + x) * 4 + 4] = data[at + x * pitch + (h - 1 - y) * 4:at + x * pitch + (h - y) * 4]
        at += pitch * w
        out[0, 0, mip] = bytes(level)
    assert at == len(data)
    return out


# ---- plates: all red values of a level, then all green, all blue
PLATES = Layout("plates", 3, 1, 10, 9, 2)


def plates_write(levels):
    body = b"".join(levels[0, 0, mip][c::3] for mip in range(2) for c in range(3))
    return {"x.plates": struct.pack("<4sHH", b"PLAT", 10, 9) + body}


def plates_read(files):
    data, at, out = files["x.plates"], 8, {}
    for mip in range(2):
        n = PLATES.grid(mip)[0] * PLATES.grid(mip)[1]
        level = bytearray(3 * n)
        for c in range(3):
            level[c::3] = data[at + c * n:at + c * n + n]
        at += 3 * n
        out[0, 0, mip] = bytes(level)
    assert at == len(data)
    return out


# ---- weave: BC1 blocks in tiles of 8 x 4 blocks, the bits of a place from the lowest on: x, y, x, y, x
WEAVE = Layout("weave", 8, 4, 40, 24, 3)


def weave_place(x, y, across):
    inside = (x & 1) | (y & 1) << 1 | (x >> 1 & 1) << 2 | (y >> 1 & 1) << 3 | (x >> 2 & 1) << 4
    return (y // 4 * ((across + 7) // 8) + x // 8) * 32 + inside


def weave_write(levels):
    body = b""
    for mip in range(3):
        w, h = WEAVE.grid(mip)
        tiled = bytearray((w + 7) // 8 * ((h + 3) // 4) * 32 * 8)
        for y in range(h):
            for x in range(w):
                at = weave_place(x, y, w) * 8
                tiled[at:at + 8] = levels[0, 0, mip][(y * w + x) * 8:(y * w + x) * 8 + 8]
        body += bytes(tiled)
    return {"w.weave": struct.pack("<4sHH", b"WEAV", 40, 24) + body}


def weave_read(files):
    data, at, out = files["w.weave"], 8, {}
    for mip in range(3):
        w, h = WEAVE.grid(mip)
        out[0, 0, mip] = b"".join(data[at + weave_place(x, y, w) * 8:at + weave_place(x, y, w) * 8 + 8] for y in range(h) for x in range(w))
        at += (w + 7) // 8 * ((h + 3) // 4) * 256
    assert at == len(data)
    return out


ALL = {l.name: (l, globals()[l.name + "_write"], globals()[l.name + "_read"])
       for l in (POSTER, MOSAIC, SLAB, STRAND, STACK, BARE, CARD, SCROLL, BADGE, LOOM, PLATES, WEAVE)}


def main():
    if sys.argv[1] == "write":
        name, folder, seed = sys.argv[2:5]
        layout, write, read = ALL[name]
        levels = layout.content(random.Random(name + seed))
        files = write(levels)
        assert read(files) == levels, name
        with zipfile.ZipFile(os.path.join(folder, name + ".zip"), "w") as archive:
            for path, data in files.items():
                archive.writestr(zipfile.ZipInfo(path, (2026, 1, 1, 0, 0, 0)), data, zipfile.ZIP_DEFLATED)
        os.makedirs(os.path.join(folder, "plain", name), exist_ok=True)
        for key, data in levels.items():
            open(os.path.join(folder, "plain", name, "%d_%d_%d" % key), "wb").write(data)
    else:
        name, folder, out = sys.argv[2:5]
        with zipfile.ZipFile(os.path.join(folder, name + ".zip")) as archive:
            files = {i.filename: archive.read(i) for i in archive.infolist()}
        for key, data in ALL[name][2](files).items():
            open(os.path.join(out, "%d_%d_%d" % key), "wb").write(data)


main()
