#!/usr/bin/env python3
"""A folder of src/ may include from what it links, and nothing else is found: tried with the compiler and the flags of the build.

usage: layers.py BUILD_FOLDER"""
import json, os, shlex, subprocess, sys, tempfile

build = os.path.abspath(sys.argv[1])
source = os.path.dirname(os.path.dirname(os.path.abspath(__file__)))
commands = {c['file']: c for c in json.load(open(os.path.join(build, 'compile_commands.json')))}

# a file of the folder, a header it may include, one it may not
tries = [('src/pixel/image.cpp', 'base/bytes.h', 'codec/codec.h'), ('src/texture/dds.cpp', 'codec/codec.h', 'container/kinds.h'),
         ('src/sift/fit.cpp', 'codec/codec.h', 'container/kinds.h'), ('src/touch/touch_up.cpp', 'pixel/mips.h', 'codec/codec.h'),
         ('src/container/zip.cpp', 'texture/texture.h', 'catalog/catalog.h'), ('src/delivery/vault.cpp', 'container/kinds.h', 'bench/fitting.h'),
         ('src/bench/fitting.cpp', 'container/kinds.h', 'delivery/vault.h'), ('src/catalog/roles.cpp', 'bench/export.h', 'workflow/project.h'),
         ('src/workflow/pieces.cpp', 'delivery/vault.h', 'cli/run.h'), ('src/cli/run.cpp', 'workflow/project.h', 'app/main_window.h')]
wrong = 0
for file, may, may_not in tries:
    command = commands[os.path.join(source, file)]
    words = shlex.split(command['command'])
    words = words[next(i for i, w in enumerate(words) if 'ccache' not in w):]
    at = words.index('-o')
    del words[at:at + 2]
    words = [w for w in words if w not in ('-c', command['file'])] + ['-fsyntax-only', '-x', 'c++', '-']
    for header, expected in ((may, True), (may_not, False)):
        done = subprocess.run(words, input=f'#include "{header}"\n', capture_output=True, text=True, cwd=command['directory'])
        found = 'No such file' not in done.stderr and 'file not found' not in done.stderr
        if found != expected or (expected and done.returncode != 0):
            wrong += 1
            print(f'{os.path.dirname(file)}: "{header}" is {"" if found else "not "}found\n{done.stderr[:400]}')
sys.exit(1 if wrong else 0)
