"""Plants mistakes in a copy of the sources, each behind a switch, as a tired programmer would make them.

    plant.py TREE DATABASE COUNT SEED LIST

TREE is the copy, whose sources under src/ and include/ are changed in place; DATABASE the compile_commands.json of the
tree that it was copied from, in ROOT; COUNT how many are planted; LIST becomes a JSON list of them, numbered from 1.

A mistake takes the place of an expression or a statement that libclang has found: a comparison turned or its border
moved by one, a sum made a difference, a constant changed, a condition negated, one side of `&&` or `||` dropped, two
arguments of one type swapped, a call or an assignment left out, a function that returns early, x for y, left for right.
Nothing is planted in constant expressions, which no switch can reach.
"""

import json
import os
import random
import sys

from clang import cindex
from clang.cindex import CursorKind as K

OTHERS = {
    "x": "y", "y": "x", "width": "height", "height": "width", "left": "right", "right": "left", "top": "bottom",
    "bottom": "top", "min": "max", "max": "min", "first": "second", "second": "first", "begin": "end", "front": "back",
    "back": "front",
}
BORDERS = {"<": "<=", "<=": "<", ">": ">=", ">=": ">", "==": "!=", "!=": "=="}
TURNED = {"<": ">", "<=": ">=", ">": "<", ">=": "<="}
SUMS = {"+": "-", "-": "+", "*": "/", "/": "*", "%": "*"}
FUNCTIONS = (K.CXX_METHOD, K.FUNCTION_DECL, K.CONSTRUCTOR, K.FUNCTION_TEMPLATE, K.DESTRUCTOR, K.CONVERSION_FUNCTION)


class File:
    def __init__(self, path):
        self.path = path
        self.text = open(path, "rb").read()
        self.sites = []  # (begin, end, kind, replacement bytes with {n}), in no order

    def of(self, cursor):
        return self.text[cursor.extent.start.offset:cursor.extent.end.offset].decode()


def is_plain(cursor, file):
    """Whether an extent is text of this file, not a macro's."""
    start, end = cursor.extent.start, cursor.extent.end
    return start.file and end.file and start.file.name == file.path and end.file.name == file.path and \
        start.offset < end.offset


def operator_of(cursor, file):
    left, right = list(cursor.get_children())[:2]
    between = file.text[left.extent.end.offset:right.extent.start.offset].decode()
    return left, right, between.strip()


def expression(file, cursor, mistake, kind):
    file.sites.append((cursor.extent.start.offset, cursor.extent.end.offset, kind, "(apsidon::planted({n}u) ? (" +
                       mistake + ") : (" + file.of(cursor) + "))"))


def look(file, cursor, constant, listed):
    """Collects what can be planted below a cursor. `constant`: within what the compiler evaluates; `listed`: within
    braces, where a number must not narrow."""
    kind = cursor.kind
    if kind in (K.STATIC_ASSERT, K.ENUM_CONSTANT_DECL, K.CASE_STMT, K.TEMPLATE_TYPE_PARAMETER):
        constant = kind != K.CASE_STMT and True
    if kind == K.VAR_DECL and ("constexpr" in file.of(cursor) or "static const" in file.of(cursor)):
        return
    if kind in FUNCTIONS:
        head = file.of(cursor).split("{")[0]
        if "constexpr" in head or "= default" in head or "= delete" in head:
            return
    if kind == K.PARM_DECL or kind == K.FIELD_DECL:
        return  # defaults are seen by others
    children = list(cursor.get_children())
    if not constant and is_plain(cursor, file):
        plant_at(file, cursor, kind, children, listed)
    for child in children:
        if kind == K.CASE_STMT and child == children[0]:
            continue
        look(file, child, constant, listed or kind == K.INIT_LIST_EXPR)


def plant_at(file, cursor, kind, children, listed):
    if kind == K.BINARY_OPERATOR and len(children) == 2:
        left, right, op = operator_of(cursor, file)
        a, b = file.of(left), file.of(right)
        arithmetic = left.type.get_canonical().kind.spelling in ("Int", "UInt", "Long", "ULong", "Float", "Double", "UShort")
        if op in BORDERS:
            expression(file, cursor, f"{a} {BORDERS[op]} {b}", "border")
            if op in TURNED:
                expression(file, cursor, f"{a} {TURNED[op]} {b}", "turned")
        elif op in ("&&", "||"):
            expression(file, cursor, a, "side dropped")
            expression(file, cursor, b, "side dropped")
        elif op in SUMS and arithmetic and not listed:
            expression(file, cursor, f"{a} {SUMS[op]} {b}", "sum")
    elif kind in (K.INTEGER_LITERAL, K.FLOATING_LITERAL) and not listed:
        text = file.of(cursor)
        if kind == K.INTEGER_LITERAL and text.isdigit():
            expression(file, cursor, str(int(text) + 1), "constant")
        elif kind == K.FLOATING_LITERAL:
            expression(file, cursor, text + " * 2", "constant")
    elif kind in (K.IF_STMT, K.WHILE_STMT) and children and children[0].kind not in (K.DECL_STMT, K.VAR_DECL):
        condition = children[0]
        head = file.text[cursor.extent.start.offset:condition.extent.start.offset].decode()
        if "constexpr" not in head and ";" not in head and is_plain(condition, file):
            expression(file, condition, "!(" + file.of(condition) + ")", "negated")
    elif kind == K.COMPOUND_STMT:
        for child in children:
            whole = child
            while whole.kind == K.UNEXPOSED_EXPR and list(whole.get_children()):
                whole = list(whole.get_children())[0]
            assigns = whole.kind == K.BINARY_OPERATOR and len(list(whole.get_children())) == 2 and \
                operator_of(whole, file)[2] in ("=", "+=", "-=")
            if (whole.kind in (K.CALL_EXPR, K.COMPOUND_ASSIGNMENT_OPERATOR) or assigns) and is_plain(child, file):
                file.sites.append((child.extent.start.offset, child.extent.start.offset, "left out",
                                   "if (!apsidon::planted({n}u)) "))
    elif kind == K.CALL_EXPR:
        arguments = [a for a in cursor.get_arguments() if a is not None]
        for one, other in zip(arguments, arguments[1:]):
            if not (is_plain(one, file) and is_plain(other, file)) or one.extent.end.offset >= other.extent.start.offset:
                continue
            a, b = file.of(one), file.of(other)
            same = one.type.get_canonical().spelling == other.type.get_canonical().spelling
            if same and a != b and one.type.kind.spelling != "Record" and not listed:
                between = file.text[one.extent.end.offset:other.extent.start.offset].decode()
                if between.strip() == ",":
                    file.sites.append((one.extent.start.offset, other.extent.end.offset, "swapped",
                                       "(apsidon::planted({n}u) ? (" + b + ") : (" + a + ")), (apsidon::planted({n}u) ? (" +
                                       a + ") : (" + b + "))"))
                    break
    elif kind == K.MEMBER_REF_EXPR and children and cursor.spelling in OTHERS:
        parent = children[0].type.get_canonical()
        names = {f.spelling for f in parent.get_fields()} if parent.kind.spelling == "Record" else set()
        text = file.of(cursor)
        if OTHERS[cursor.spelling] in names and text.endswith("." + cursor.spelling):
            expression(file, cursor, text[:-len(cursor.spelling)] + OTHERS[cursor.spelling], "other member")


def main():
    tree, database, count, seed, out = sys.argv[1], sys.argv[2], int(sys.argv[3]), int(sys.argv[4]), sys.argv[5]
    chance = random.Random(seed)
    index = cindex.Index.create()
    files = {}
    root = os.path.commonpath([os.path.dirname(os.path.dirname(os.path.dirname(database)))])
    for entry in json.load(open(database)):
        path = entry["file"]
        part = os.path.relpath(path, root)
        if not part.startswith("src" + os.sep) or not path.endswith(".cpp"):
            continue
        words = [w for w in entry["command"].split()[1:] if w.startswith(("-I", "-D", "-std", "-isystem"))]
        flags, take = [], False
        for word in entry["command"].split():
            if take or word.startswith(("-I", "-D", "-std")):
                flags.append(word.replace("\\\"", "\""))
                take = False
            elif word == "-isystem":
                flags.append(word)
                take = True
        unit = index.parse(path, args=flags, options=cindex.TranslationUnit.PARSE_DETAILED_PROCESSING_RECORD)
        for cursor in unit.cursor.get_children():
            at = cursor.location.file
            if not at or not os.path.realpath(at.name).startswith(os.path.join(root, "src")):
                continue
            name = at.name
            if name != path and name in files and files[name].done != path:
                continue  # a header that another source has shown
            file = files.setdefault(name, File(name))
            file.done = path
            look(file, cursor, False, False)
    # Lines are chosen evenly, then one of their mistakes; none within another.
    lines = {}
    for file in files.values():
        for site in set(file.sites):
            line = file.text.count(b"\n", 0, site[0]) + 1
            lines.setdefault((file.path, line), []).append(site)
    order = sorted(lines)
    chance.shuffle(order)
    chosen = {}
    planted = []
    for path, line in order:
        if len(planted) == count:
            break
        site = chance.choice(sorted(lines[path, line]))
        taken = chosen.setdefault(path, [])
        if any(site[0] < b and a < site[1] or site[0] == a for a, b, *_ in taken):
            continue
        taken.append(site)
        planted.append((path, line, site))
    written = []
    for number, (path, line, site) in enumerate(planted, 1):
        file = files[path]
        written.append({"number": number, "file": os.path.relpath(path, root), "line": line, "kind": site[2],
                        "was": file.text[site[0]:site[1]].decode() or file.text.split(b"\n")[line - 1].decode().strip(),
                        "text": file.text.split(b"\n")[line - 1].decode().strip(), "begin": site[0], "end": site[1],
                        "by": site[3]})
    json.dump(written, open(out, "w"), indent=1)
    write(tree, root, written)
    print(f"{len(written)} mistakes planted in {len(chosen)} files, of {sum(map(len, lines.values()))} that could be")


def write(tree, root, mistakes):
    """Writes the files of the tree anew, with these mistakes."""
    by_file = {}
    for m in mistakes:
        by_file.setdefault(m["file"], []).append(m)
    for name, of in by_file.items():
        text = open(os.path.join(root, name), "rb").read()
        for m in sorted(of, key=lambda m: -m["begin"]):
            text = text[:m["begin"]] + m["by"].replace("{n}", str(m["number"])).encode() + text[m["end"]:]
        open(os.path.join(tree, name), "wb").write(text)


if __name__ == "__main__":
    main()
