"""The simplest of the layouts; others wrap it."""
import struct

from shared import *


class Bins:
    """A table of fixed names in front, everything stored."""
    name = "game.bins"

    def write(self, items):
        at = 16 + 40 * len(items)
        table = body = b""
        for path, data in items:
            table += struct.pack("<32sII", path.encode(), at + len(body), len(data))
            body += data
        return {self.name: b"BINS" + struct.pack("<III", len(items), 7, at + len(body)) + table + body}

    def read(self, files):
        f = files[self.name]
        count, version, size = struct.unpack_from("<III", f, 4)
        need(size == len(f), "file size")
        out = {}
        for i in range(count):
            name, at, n = struct.unpack_from("<32sII", f, 16 + 40 * i)
            need(at + n <= len(f), "extent")
            out[text(name)] = f[at:at + n]
        return out
