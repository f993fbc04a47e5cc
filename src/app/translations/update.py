#!/usr/bin/env python3
"""Collects every text that is shown, and puts it into the .ts files beside this one.

    update.py            texts that are new come in untranslated, those that are gone go
    update.py --check    changes nothing; fails where a text is missing or not translated, or where the places for values differ

Texts of the window are found by Qt's lupdate (tr, translate, QT_TRANSLATE_NOOP). Texts of the core are all literals of several words, so that
none is forgotten, but for those told below to be nothing to read; words alone, and what the window says as the core does, only where they are
given to the functions, or stand in the tables, below. All stand in one context: see language.h.
"""

import ast
import re
import subprocess
import sys
import tempfile
import xml.etree.ElementTree as xml
from pathlib import Path

here = Path(__file__).resolve().parent
root = here.parents[2]
core = "base bench catalog codec container delivery mesh parcel pixel sheet sift texture tiling touch workflow".split()
speaks = "phrase|said|fail|fail_at|fail_errno|note|block|found|within|wrong|Error|in_entry|refused|note_and_doubt"
# Functions that name things, in the files where people read the names.
namers = re.compile(r"\b(?:name_of|describe|describe_way|words_of|text_of|use_of)\([^;{}]*\)\s*(?:const\s*)?\{")
with_names = [
    "bench/derived_map", "catalog/likeness", "catalog/baseline", "catalog/game_survey", "catalog/picture_facts", "catalog/place_words",
    "catalog/query", "catalog/roles",
    "container/sheet_try", "mesh/plain", "pixel/alpha_use", "pixel/mips", "pixel/normals", "touch/touch_up", "workflow/bring_in", "workflow/kin",
    "workflow/parcels", "workflow/shipped", "workflow/update",
]
# Tables of words: what in a row is read by people.
tables = [
    ("catalog/roles.cpp", r'\{Role::\w+, "\w+", "([^"]+)"'),
    ("bench/mends.cpp", r'\{Mend::\w+, MendStep::\w+, "\w+", "\w+", "([^"]+)", "([^"]+)"'),
    ("bench/derived_map.cpp", r'\{"[^"]+", "([^"]+)"\}'),
    ("touch/rows.cpp", r'\{"(\w+)", (?:TouchParamKind::)?(?:number|choice|file|color), "([^"]+)"'),
    ("touch/rows.cpp", r'\{"\w+", "\w+", "([^"]+)", "([^"]+)"'),
    ("container/sift.cpp", r'string name\(\) const override \{ return "(\w+)"'),
    ("workflow/project.cpp", r'\{PieceState::\w+, "([^"]+)"'),
]
choices = ("touch/rows.cpp", r'"([a-z_]+(?:\|[a-z_]+)+)"')  # alternatives, shown one by one
# Texts of several words that nobody reads: words of sheets and of names, what a drafted sheet says, SQL, names of files and of codecs, and
# what is thrown at the compiler or says more about an error of a library.
unread_files = re.compile(r"sheet/parse_|codec/bc6h_tables|catalog/(roles|place_words)\.")
unread = re.compile(r"SELECT |INSERT |DELETE |UPDATE |BEGIN |PRAGMA |CREATE |SQLite format|# |\w+ = \"|, \w+ = \"|.*\.txt$|(lz4 block|lzma raw|multiply add)$")
thrown = re.compile(r'\b(?:throw\s+|runtime_error\(|type_error::create\(\d+, )"(?:[^"\\]|\\.)*"')
literal = re.compile(r'"((?:[^"\\]|\\.)*)"')
literals = re.compile(r'((?:"(?:[^"\\]|\\.)*"\s*)+)')


def text_of(source):
    return "".join(ast.literal_eval('"' + part + '"') for part in literal.findall(source))


def arguments(source, begin):
    depth, at, inside = 1, begin, False
    while at < len(source) and depth:
        c = source[at]
        if inside:
            if c == "\\":
                at += 1
            elif c == '"':
                inside = False
        elif c == '"':
            inside = True
        elif c in "({[":
            depth += 1
        elif c in ")}]":
            depth -= 1
        at += 1
    return source[begin : at - 1]


def without_comments(source):
    kept = re.sub(r"""("(?:[^"\\\n]|\\.)*")|'(?:[^'\\\n]|\\.)'|//[^\n]*""", lambda m: m.group(1) or " ", source)
    return thrown.sub("", kept)


def is_read(text, function):
    words = re.findall(r"[A-Za-z]{2,}", re.sub(r"\{[^}]*\}", "", text))
    if not words or "\n" in text and "=" in text or re.match(r"SELECT |SQLite|# |INSERT |PRAGMA ", text):
        return False
    return function in ("phrase", "said") or " " in text.strip()


def core_texts():
    found = {}
    call = re.compile(r"\b(" + speaks + r")\s*[({]")
    for folder in core + ["app"]:
        for file in sorted((root / "src" / folder).rglob("*.cpp")) + sorted((root / "src" / folder).rglob("*.h")):
            source = without_comments(file.read_text())
            for match in call.finditer(source):
                for part in literals.finditer(arguments(source, match.end())):
                    text = text_of(part.group(1))
                    if is_read(text, match.group(1)):
                        found.setdefault(text, str(file.relative_to(root)))
            for part in literals.finditer("" if folder == "app" or unread_files.search(str(file)) else source):
                text = text_of(part.group(1))
                words = re.findall(r"[a-z]{2,}", re.sub(r"\{[^}]*\}", "", text))
                if len(words) > 1 and " " in text.strip() and "\n" not in text and not unread.match(text):
                    found.setdefault(text, str(file.relative_to(root)))
    def add(text, file):
        found.setdefault(text, "src/" + file)

    sources = {}

    def source_of(file):
        if file not in sources:
            sources[file] = without_comments((root / "src" / file).read_text())
        return sources[file]

    for name in with_names:
        source = source_of(name + ".cpp")
        for match in namers.finditer(source):
            for part in literals.finditer(arguments(source, match.end())):
                text = text_of(part.group(1))
                if re.search(r"[A-Za-z]{2,}", re.sub(r"\{[^}]*\}", "", text)):
                    add(text, name + ".cpp")
    for file, pattern in tables:
        for match in re.finditer(pattern, source_of(file), re.S):
            for group in match.groups():
                add(ast.literal_eval('"' + group + '"'), file)
    for match in re.finditer(choices[1], source_of(choices[0])):
        for word in match.group(1).split("|"):
            add(word.replace("_", " "), choices[0])
    return found


def lupdate():
    for place in ("/usr/lib/qt6/bin/lupdate", "lupdate"):
        try:
            subprocess.run([place, "-version"], capture_output=True, check=True)
            return place
        except (OSError, subprocess.CalledProcessError):
            continue
    sys.exit("update.py: lupdate is needed (Debian: qt6-l10n-tools)")


def window_texts():
    """(text, comment) -> (file, plural)"""
    found = {}
    with tempfile.TemporaryDirectory() as folder:
        out = Path(folder) / "all.ts"
        subprocess.run([lupdate(), "-silent", "-no-obsolete", "-locations", "absolute", str(root / "src/app"), "-ts", str(out)],
                       capture_output=True, check=True)
        for message in xml.parse(out).getroot().iter("message"):
            place = message.find("location")
            where = str((Path(folder) / place.get("filename")).resolve().relative_to(root)) if place is not None else ""
            key = (message.findtext("source"), message.findtext("comment") or "")
            found.setdefault(key, (where, message.get("numerus") == "yes"))
    return found


def all_texts():
    found = window_texts()
    for text, file in core_texts().items():
        found.setdefault((text, ""), (file, False))
    return found


def places(text):
    """What stands for values: %1, %L1, %n, {} and {0:.3g}; numbered ones may come in another order."""
    qt = sorted(set(re.findall(r"%(?:L?(\d+)|(n))", text)))
    braces = re.findall(r"(?<!\{)\{([^{}]*)\}(?!\})", text)
    free = len([b for b in braces if not re.match(r"\d", b)])
    return qt, max(free, len({re.match(r"\d+", b).group() for b in braces if re.match(r"\d", b)})) if braces else 0


def read(file):
    known = {}
    if file.exists():
        for message in xml.parse(file).getroot().iter("message"):
            translation = message.find("translation")
            forms = [form.text or "" for form in translation.findall("numerusform")] or [translation.text or ""]
            known[(message.findtext("source"), message.findtext("comment") or "")] = forms
    return known


def write(file, texts, known):
    top = xml.Element("TS", version="2.1", language=file.stem.split("_", 1)[1], sourcelanguage="en")
    context = xml.SubElement(top, "context")
    xml.SubElement(context, "name").text = "skivet"
    for key in sorted(texts, key=lambda k: (texts[k][0], k)):
        where, plural = texts[key]
        message = xml.SubElement(context, "message")
        if plural:
            message.set("numerus", "yes")
        xml.SubElement(message, "location", filename="../../../" + where)
        xml.SubElement(message, "source").text = key[0]
        if key[1]:
            xml.SubElement(message, "comment").text = key[1]
        forms = known.get(key, [""])
        translation = xml.SubElement(message, "translation")
        if not all(forms):
            translation.set("type", "unfinished")
        if plural:
            for form in forms if len(forms) == 2 else [forms[0], forms[0]]:
                xml.SubElement(translation, "numerusform").text = form
        else:
            translation.text = forms[0]
    xml.indent(top, "    ")
    file.write_text('<?xml version="1.0" encoding="utf-8"?>\n<!DOCTYPE TS>\n' + xml.tostring(top, encoding="unicode") + "\n")


def check(file, texts, known):
    wrong = []
    for key in texts:
        if key not in known:
            wrong.append(f"not in the file: {key[0]!r}")
            continue
        for form in known[key]:
            if not form:
                wrong.append(f"not translated: {key[0]!r}")
            elif places(form) != places(key[0]):
                wrong.append(f"other places for values: {key[0]!r} -> {form!r}")
            elif (form[:1] == " ") != (key[0][:1] == " ") or (form[-1:] == " ") != (key[0][-1:] == " "):
                wrong.append(f"blanks at the ends differ: {key[0]!r} -> {form!r}")
    wrong += [f"said nowhere any more: {key[0]!r}" for key in known if key not in texts]
    for line in wrong:
        print(f"{file.name}: {line}")
    print(f"{file.name}: {len(texts)} texts, {len(wrong)} wrong")
    return not wrong


if __name__ == "__main__":
    texts = all_texts()
    fine = True
    for file in sorted(here.glob("skivet_*.ts")):
        if "--check" in sys.argv:
            fine = check(file, texts, read(file)) and fine
        else:
            write(file, texts, read(file))
            print(f"{file.name}: {len(texts)} texts, {sum(1 for k in texts if not all(read(file).get(k, [''])))} to translate")
    sys.exit(0 if fine else 1)
