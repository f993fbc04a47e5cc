#!/usr/bin/env python3
"""Roles and finding by picture on a game's own archive: public.zip of the Debian package 0ad-data (0.0.26-1), whose pictures stay out of this repository.

usage: package_check.py public.zip [number of queries]

labelled_roles.txt has 400 of its textures with what they are for, by the package's own naming (…_norm, …_spec, ao) and, for base colors, by looking at a part of
them. Queries are made by ImageMagick from random textures that are not plain: resized, as JPEG, mirrored, turned, in other hues, cropped to a quarter and more, and
block-compressed. A query is answered when its texture is among the first five."""
import collections, json, os, random, subprocess, sys, tempfile

here = os.path.dirname(os.path.abspath(__file__))
cli = os.path.join(here, '../build/bench/bin/skivet-cli')
archive, queries = os.path.abspath(sys.argv[1]), int(sys.argv[2]) if len(sys.argv) > 2 else 200
work = tempfile.TemporaryDirectory()
index = work.name + '/index.sqlite'


def run(*words):
    return subprocess.run([cli, *words], capture_output=True, text=True).stdout


labels = dict(line.rstrip('\n').split('\t') for line in open(here + '/labelled_roles.txt'))
for how in ([], ['--by-picture']):
    roles = {j['path']: j['role'] for j in map(json.loads, run('roles', archive, '--json', '--index', index, *how).splitlines())}
    right = sum(roles.get(path) == role for path, role in labels.items())
    print(f'roles {"by the pixels alone" if how else "by name and pixels"}: {right} of {len(labels)} right ({100 * right / len(labels):.1f} %)')

random.seed(7)
paths = [p for p in roles if p.startswith('art/textures/')]
random.shuffle(paths)
kinds = ['resized', 'jpeg', 'mirrored', 'turned', 'hue', 'cropped', 'blocks']
asked, found, missed = collections.Counter(), collections.Counter(), []
for n, path in enumerate(paths):
    if sum(asked.values()) >= queries:
        break
    folder = f'{work.name}/{n}'
    run('export', archive + '::' + path, '--to', folder, '--flat', '--as', 'png')
    files = os.listdir(folder) if os.path.isdir(folder) else []
    if not files:
        continue
    source = folder + '/' + files[0]
    w, h, spread = subprocess.run(['identify', '-format', '%w %h %[standard-deviation]', source], capture_output=True, text=True).stdout.split()[:3]
    w, h = int(w), int(h)
    if float(spread) < 1000 or min(w, h) < 64:   # of 65,535: nothing to recognize, or too small to be resized
        continue
    r, kind, out = random.Random(n), kinds[sum(asked.values()) % len(kinds)], folder + '/query.png'
    if kind == 'resized':
        how = ['-resize', f'{r.choice([50, 75, 150])}%']
    elif kind == 'jpeg':
        how, out = ['-alpha', 'off', '-quality', str(r.choice([30, 50, 70]))], folder + '/query.jpg'
    elif kind == 'mirrored':
        how = ['-flop']
    elif kind == 'turned':
        how = ['-rotate', str(r.choice([90, 180, 270]))]
    elif kind == 'hue':
        how = ['-modulate', f'{r.choice([85, 100, 115])},{r.choice([80, 100, 120])},{r.choice([92, 96, 104, 108])}']
    elif kind == 'cropped':
        sx = r.uniform(.5, 1)
        cw, ch = int(w * sx), int(h * r.uniform(max(.5, .25 / sx), 1))
        how = ['-crop', f'{cw}x{ch}+{r.randint(0, w - cw)}+{r.randint(0, h - ch)}', '+repage']
    else:
        how, out = ['-alpha', 'off', '-resize', '50%', '-define', 'dds:compression=dxt1'], folder + '/query.dds'
    if subprocess.run(['convert', source, *how, out], capture_output=True).returncode:
        continue
    hits = [json.loads(line)['path'] for line in run('find-picture', out, archive, '--top', '5', '--json', '--index', index).splitlines()]
    asked[kind] += 1
    found[kind] += path in hits
    if path not in hits:
        missed.append((kind, path))
for kind in kinds:
    print(f'{kind:10} {found[kind]} of {asked[kind]}')
print(f'found among the first five: {sum(found.values())} of {sum(asked.values())}')
for kind, path in missed:
    print('missed:', kind, path)
