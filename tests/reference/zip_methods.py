"""Writes a ZIP archive whose entries use every method that other programs read, with nothing of Skivet: struct, zlib and the packers' own
tools. Usage: zip_methods.py OUT FILE..."""
import bz2, lzma, struct, subprocess, sys, zlib

METHODS = [(0, lambda d: d),
           (8, lambda d: deflate(d)),
           (12, bz2.compress),
           (14, lambda d: lzma_entry(d)),
           (93, lambda d: tool(["zstd", "-q", "-c"], d)),
           (95, lambda d: tool(["xz", "-c"], d))]


def deflate(data):
    packer = zlib.compressobj(6, zlib.DEFLATED, -15)
    return packer.compress(data) + packer.flush()


def tool(words, data):
    return subprocess.run(words, input=data, stdout=subprocess.PIPE, check=True).stdout


def lzma_entry(data):
    """APPNOTE 5.8.8: version, size of the properties, properties, stream with an end mark."""
    alone = lzma.compress(data, format=lzma.FORMAT_ALONE)
    return b"\x09\x04" + struct.pack("<H", 5) + alone[:5] + alone[13:]


out, names = open(sys.argv[1], "wb"), sys.argv[2:]
directory = b""
count = 0
for name in names:
    data = open(name, "rb").read()
    for method, pack in METHODS:
        entry = ("%d/%s" % (method, name.rsplit("/", 1)[-1])).encode()
        packed = pack(data)
        flags = 2 if method == 14 else 0
        common = struct.pack("<HHHHHIIIHH", 63, flags, method, 0, 0x2F21, zlib.crc32(data), len(packed), len(data), len(entry), 0)
        directory += struct.pack("<IH", 0x02014B50, 0x033F) + common + struct.pack("<HHHII", 0, 0, 0, 0, out.tell()) + entry
        out.write(struct.pack("<I", 0x04034B50) + common + entry + packed)
        count += 1
at = out.tell()
out.write(directory + struct.pack("<IHHHHIIH", 0x06054B50, 0, 0, count, count, len(directory), at, 0))
