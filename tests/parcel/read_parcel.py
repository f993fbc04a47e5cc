"""Reads parcels by docs/parcels.md alone, with nothing but Python's standard library.

usage: read_parcel.py PARCEL ORIGINAL.dds PATH OUT    makes the change of the texture at PATH (its last step) in a DDS file
       read_parcel.py PARCEL                          prints id, title and the paths
"""
import hashlib
import json
import struct
import sys
import zipfile

# Bytes and sides of a unit.
UNITS = {"BC1": (8, 4), "BC2": (16, 4), "BC3": (16, 4), "BC4": (8, 4), "BC5": (16, 4), "BC6H": (16, 4), "BC7": (16, 4), "RGBA8": (4, 1),
         "BGRA8": (4, 1), "RGB8": (3, 1), "B5G6R5": (2, 1), "L8": (1, 1), "R8": (1, 1), "RGBA16F": (8, 1)}
OUTSIDE = 0xFFFFFFFF


def surfaces(texture, start):
    """(offset, size) in a DDS file: there they lie in the order of the page."""
    size, side = UNITS[texture["format"]]
    out, at = [], start
    for _ in range(texture.get("layers", 1) * texture.get("faces", 1)):
        for mip in range(texture["mips"]):
            w, h = max(1, texture["width"] >> mip), max(1, texture["height"] >> mip)
            for _ in range(max(1, texture.get("depth", 1) >> mip)):
                length = -(-w // side) * -(-h // side) * size
                out.append((at, length))
                at += length
    return out


def main():
    parcel = zipfile.ZipFile(sys.argv[1])
    assert parcel.namelist()[0] == "parcel.json"
    manifest = json.loads(parcel.read("parcel.json"))
    assert manifest["parcel"] == 1
    if len(sys.argv) == 2:
        print(manifest["id"], "|", manifest["title"])
        for t in manifest["textures"]:
            print("::".join(t["path"]), "whole" if "whole" in t else "change")
        return
    original = open(sys.argv[2], "rb").read()
    texture, = (t for t in manifest["textures"] if t["path"][-1] == sys.argv[3])
    assert hashlib.sha256(original).hexdigest() == texture["was"]["file"]
    start = 148 if original[84:88] == b"DX10" else 128
    places = surfaces(texture["texture"], start)
    pixels = b"".join(original[at:at + size] for at, size in places)
    assert hashlib.sha256(pixels).hexdigest() == texture["was"]["pixels"]
    if "whole" in texture:
        result = parcel.read(texture["whole"])
    else:
        change = parcel.read(texture["change"])
        count, = struct.unpack_from("<I", change)
        stretches = [struct.unpack_from("<III8s", change, 4 + 20 * i) for i in range(count)]
        at = 4 + 20 * count
        result = bytearray(original)
        unit = UNITS[texture["texture"]["format"]][0]
        for surface, first, units, mark in stretches:
            place = first if surface == OUTSIDE else places[surface][0] + first * unit
            length = units if surface == OUTSIDE else units * unit
            assert hashlib.sha256(original[place:place + length]).digest()[:8] == mark
            assert surface == OUTSIDE or first * unit + length <= places[surface][1]
            result[place:place + length] = change[at:at + length]
            at += length
        assert at == len(change)
    assert hashlib.sha256(result).hexdigest() == texture["becomes"]["file"]
    open(sys.argv[4], "wb").write(result)
    print("ok")


main()
