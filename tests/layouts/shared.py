"""What the writers of layouts share."""
import hashlib, lzma, os, random, struct, subprocess, sys, zlib

KEYS = {"booth": bytes(range(16)), "vault": bytes(range(100, 132)), "tin": b"tin foil"}


def tool(words, data):
    return subprocess.run(words, input=data, stdout=subprocess.PIPE, check=True).stdout


def aes(cipher, key, iv, data, decrypt=False):
    words = ["openssl", "enc", "-" + cipher, "-K", key.hex(), "-nopad"] + (["-d"] if decrypt else [])
    return tool(words + (["-iv", iv.hex()] if "ecb" not in cipher else []), data)


def aes_blocks(cipher, key, iv, data, decrypt=False):
    """Whole blocks; what is left behind the last one stays as it is."""
    whole = len(data) // 16 * 16
    return (aes(cipher, key, iv, data[:whole], decrypt) if whole else b"") + data[whole:]


def deflate(data):
    packer = zlib.compressobj(6, zlib.DEFLATED, -15)
    return packer.compress(data) + packer.flush()


def fnv1a(data, bits):
    h, prime = (0x811C9DC5, 0x01000193) if bits == 32 else (0xCBF29CE484222325, 0x100000001B3)
    for b in data:
        h = (h ^ b) * prime % (1 << bits)
    return h


def xxh64(data):
    return int(tool(["xxhsum", "-H64", "-"], data).split()[0], 16)


def lz4_block_write(data):
    """Only literals, which is a valid block."""
    out, n = bytearray(), len(data)
    out.append(min(n, 15) << 4)
    if n >= 15:
        n -= 15
        while n >= 255:
            out.append(255)
            n -= 255
        out.append(n)
    return bytes(out) + data


def lz4_block_read(data):
    out, at = bytearray(), 0

    def length(n):
        nonlocal at
        if n < 15:
            return n
        while True:
            n += data[at]
            at += 1
            if data[at - 1] != 255:
                return n
    while at < len(data):
        token = data[at]
        at += 1
        n = length(token >> 4)
        out += data[at:at + n]
        at += n
        if at >= len(data):
            break
        back = data[at] | data[at + 1] << 8
        at += 2
        for _ in range(length(token & 15) + 4):
            out.append(out[-back])
    return bytes(out)


def need(condition, what):
    if not condition:
        sys.exit("layouts.py: " + what)


def text(data):
    return data.split(b"\0")[0].decode()


def pad(data, to, fill=0):
    return data + bytes([fill]) * (-len(data) % to)
