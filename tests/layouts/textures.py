"""Six invented texture layouts, each with a writer and a reader of its own that share nothing with Skivet.

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


ALL = {l.name: (l, globals()[l.name + "_write"], globals()[l.name + "_read"]) for l in (POSTER, MOSAIC, SLAB, STRAND, STACK, BARE)}


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
