"""Finds where a source file can hold a mistake, and what the mistake is.

A site is an expression or statement that can be written in another way and still compiles, as a tired programmer
would: a border moved by one, a condition turned round, x for y. Sites are found in the syntax tree of libclang.
"""
import dataclasses
import json
import os
import re
import shlex
import zlib

from clang.cindex import Config, CursorKind, Index, TypeKind

Config.set_library_file(os.environ.get("LIBCLANG", "/usr/lib/llvm-14/lib/libclang.so.1"))


@dataclasses.dataclass
class Site:
    """Bytes [begin, end) of a file, and what stands in their place where the mistake is made."""

    file: str
    line: int
    begin: int
    end: int
    kind: str
    mistaken: str
    shape: str = "expression"  # or "statement", which is left out, or "entry", put at the start of a body

    def what(self, text):
        if self.kind == "early return":
            return f"'{self.mistaken}' at the start"
        if self.kind == "left out":
            return f"'{squeeze(text[self.begin:self.end])}' is left out"
        return f"'{squeeze(text[self.begin:self.end])}' -> '{squeeze(self.mistaken)}'"


def squeeze(text):
    text = re.sub(r"\s+", " ", text)
    return text if len(text) <= 90 else text[:87] + "…"


COMPARISONS = {"<": ["<=", ">"], "<=": ["<", ">="], ">": [">=", "<"], ">=": [">", "<="], "==": ["!="], "!=": ["=="]}
ARITHMETIC = {"+": ["-"], "-": ["+"], "*": ["/"], "/": ["*"], "%": ["/"], "+=": ["-="], "-=": ["+="], "*=": ["/="],
              "|": ["&"], "&": ["|"], "<<": [">>"], ">>": ["<<"]}
PAIRS = [("x", "y"), ("width", "height"), ("left", "right"), ("top", "bottom"), ("first", "second"),
         ("front", "back"), ("low", "high"), ("min", "max"), ("floor", "ceil"), ("sin", "cos"), ("least", "most"),
         ("any_of", "all_of"), ("from", "to"), ("begin", "end"), ("lower_bound", "upper_bound")]
OTHER = {a: b for pair in PAIRS for a, b in (pair, pair[::-1])}
OTHER.pop("begin"), OTHER.pop("end")
BOOLEAN_CONTEXTS = {CursorKind.IF_STMT, CursorKind.WHILE_STMT, CursorKind.CONDITIONAL_OPERATOR}
# Nothing within these is changed: constants of the program, and what belongs to types.
SKIPPED = {CursorKind.CASE_STMT, CursorKind.STATIC_ASSERT, CursorKind.ENUM_DECL, CursorKind.PARM_DECL,
           CursorKind.FIELD_DECL, CursorKind.TYPE_REF, CursorKind.TEMPLATE_REF, CursorKind.NAMESPACE_REF}
FUNCTIONS = {CursorKind.FUNCTION_DECL, CursorKind.CXX_METHOD, CursorKind.CONSTRUCTOR, CursorKind.FUNCTION_TEMPLATE,
             CursorKind.LAMBDA_EXPR, CursorKind.CONVERSION_FUNCTION, CursorKind.DESTRUCTOR}
INTEGERS = {TypeKind.INT, TypeKind.UINT, TypeKind.LONG, TypeKind.ULONG, TypeKind.SHORT, TypeKind.USHORT,
            TypeKind.UCHAR, TypeKind.SCHAR, TypeKind.LONGLONG, TypeKind.ULONGLONG}


class Finder:
    def __init__(self, file, text):
        self.file, self.text, self.sites = file, text, []

    def add(self, cursor, kind, mistaken, shape="expression"):
        extent = cursor.extent
        self.at(extent.start.line, extent.start.offset, extent.end.offset, kind, mistaken, shape)

    def at(self, line, begin, end, kind, mistaken, shape="expression"):
        self.sites.append(Site(self.file, line, begin, end, kind, mistaken, shape))

    def of(self, cursor):
        return self.text[cursor.extent.start.offset:cursor.extent.end.offset]

    def spelt(self, cursor):
        """Whether it stands in this file as it is, and is no macro's."""
        extent = cursor.extent
        return (extent.start.file and extent.start.file.name == self.file and extent.end.file
                and extent.end.file.name == self.file and extent.start.offset < extent.end.offset)

    def walk(self, cursor, in_braces=False):
        kind = cursor.kind
        if kind in SKIPPED or not self.spelt(cursor):
            return
        if kind in FUNCTIONS and not self.enter(cursor):
            return
        if kind == CursorKind.VAR_DECL and re.match(r"(\w+\s+)*?(static|constexpr)\b", self.of(cursor)):
            return
        children = [c for c in cursor.get_children()]
        visit = getattr(self, "on_" + kind.name.lower(), None)
        if visit:
            visit(cursor, children, in_braces)
        if kind in BOOLEAN_CONTEXTS and children:
            self.condition(children[0])
        if kind == CursorKind.COMPOUND_STMT:
            for child in children:
                self.statement(child)
        braces = in_braces or kind == CursorKind.INIT_LIST_EXPR
        if kind == CursorKind.COMPOUND_STMT:
            braces = False
        for child in children:
            self.walk(child, braces)

    def enter(self, cursor):
        body = next((c for c in cursor.get_children() if c.kind == CursorKind.COMPOUND_STMT), None)
        if cursor.kind == CursorKind.LAMBDA_EXPR:
            return True
        if body is None:
            return False
        head = self.text[cursor.extent.start.offset:body.extent.start.offset]
        before = self.text[max(0, cursor.extent.start.offset - 40):cursor.extent.start.offset]
        if re.search(r"\b(constexpr|consteval)\b", head + before.rsplit("\n", 1)[-1]):
            return False
        result = cursor.result_type.get_canonical().kind if cursor.kind != CursorKind.CONSTRUCTOR else None
        value = {TypeKind.VOID: "return;", TypeKind.BOOL: "return false;", TypeKind.FLOAT: "return 0;",
                 TypeKind.DOUBLE: "return 0;"}.get(result, "return 0;" if result in INTEGERS else None)
        if value and sum(1 for _ in body.get_children()) > 1:
            start = body.extent.start
            self.at(start.line, start.offset + 1, start.offset + 1, "early return", value, "entry")
        return True

    def condition(self, cursor):
        if self.spelt(cursor) and cursor.type.get_canonical().kind == TypeKind.BOOL:
            self.add(cursor, "negated", f"!({self.of(cursor)})")

    def statement(self, cursor):
        kinds = (CursorKind.CALL_EXPR, CursorKind.BINARY_OPERATOR, CursorKind.COMPOUND_ASSIGNMENT_OPERATOR,
                 CursorKind.UNARY_OPERATOR, CursorKind.CONTINUE_STMT, CursorKind.UNEXPOSED_EXPR)
        if cursor.kind in kinds and self.spelt(cursor):
            self.add(cursor, "left out", "", "statement")

    def binary(self, cursor, children):
        if len(children) != 2 or not all(self.spelt(c) for c in children):
            return
        a, b = (self.of(c) for c in children)
        op = self.text[children[0].extent.end.offset:children[1].extent.start.offset].strip()
        if op in COMPARISONS:
            for other in COMPARISONS[op]:
                border = other.rstrip("=") == op.rstrip("=") and op not in ("==", "!=")
                self.add(cursor, "border" if border else "turned", f"{a} {other} {b}")
        elif op in ARITHMETIC:
            self.add(cursor, "arithmetic", f"{a} {ARITHMETIC[op][0]} {b}")
        elif op in ("&&", "||"):
            self.add(cursor, "side dropped", a)
            self.add(cursor, "side dropped", b)

    def on_binary_operator(self, cursor, children, _):
        self.binary(cursor, children)

    def on_compound_assignment_operator(self, cursor, children, _):
        self.binary(cursor, children)

    def on_unary_operator(self, cursor, children, _):
        text = self.of(cursor)
        if children and text[0] in "!-" and not text.startswith("--"):
            self.add(cursor, "negated", self.of(children[0]))

    def on_conditional_operator(self, cursor, children, _):
        if len(children) == 3 and all(self.spelt(c) for c in children):
            c, a, b = (self.of(c) for c in children)
            self.add(cursor, "branches swapped", f"({c}) ? {b} : {a}")

    def on_return_stmt(self, cursor, children, _):
        if children:
            self.condition(children[0])

    def on_integer_literal(self, cursor, _, in_braces):
        text = self.of(cursor)
        if re.fullmatch(r"\d+[uU]?", text) and not in_braces:
            suffix = text[len(text.rstrip("uU")):]
            self.add(cursor, "constant", f"{int(text.rstrip('uU')) + 1}{suffix}")

    def on_floating_literal(self, cursor, _, in_braces):
        match = re.fullmatch(r"(\d*\.?\d*(?:e-?\d+)?)(f?)", self.of(cursor))
        if match and match[1] and not in_braces:
            value = float(match[1]) * 1.25 or 0.5
            text = repr(value)
            self.add(cursor, "constant", text + match[2])

    def on_cxx_bool_literal_expr(self, cursor, _, in_braces):
        if not in_braces:
            self.add(cursor, "constant", "false" if self.of(cursor) == "true" else "true")

    def on_member_ref_expr(self, cursor, children, _):
        name = cursor.spelling
        text = self.of(cursor)
        if name not in OTHER or not text.endswith(name) or cursor.type.kind == TypeKind.INVALID:
            return
        owner = cursor.referenced.semantic_parent if cursor.referenced else None
        same = [m for m in owner.get_children() if m.spelling == OTHER[name] and m.kind == CursorKind.FIELD_DECL
                and m.type.get_canonical().spelling == cursor.referenced.type.get_canonical().spelling] if owner else []
        if same:
            self.add(cursor, "mixed up", text[:-len(name)] + OTHER[name])

    def on_call_expr(self, cursor, children, _):
        text = self.of(cursor)
        if cursor.spelling.startswith("operator"):
            if len(children) == 3 and not text.endswith(")"):
                self.binary(cursor, [children[0], children[2]])
            elif len(children) == 2 and not text.endswith(")"):
                self.binary(cursor, children)
            return
        name = cursor.spelling
        args = list(cursor.get_arguments())
        paren = text.find("(")
        if name in OTHER and paren > 0 and re.search(rf"\b{name}$", text[:paren]):
            self.add(cursor, "mixed up", text[:paren - len(name)] + OTHER[name] + text[paren:])
        for a, b in zip(args, args[1:]):
            if not (self.spelt(a) and self.spelt(b)) or self.of(a) == self.of(b):
                continue
            if a.type.get_canonical().spelling == b.type.get_canonical().spelling and cursor.type.kind != TypeKind.INVALID:
                if name in ("min", "max", "hypot"):
                    continue
                start = cursor.extent.start.offset
                swapped = (text[:a.extent.start.offset - start] + self.of(b)
                           + text[a.extent.end.offset - start:b.extent.start.offset - start] + self.of(a)
                           + text[b.extent.end.offset - start:])
                self.add(cursor, "arguments swapped", swapped)


def arguments_of(command):
    """What libclang needs of a compiler's command line."""
    words, out = shlex.split(command), []
    it = iter(words)
    for word in it:
        if word in ("-I", "-isystem"):
            out += [word, next(it)]
        elif word == "-include":
            next(it)
        elif word.startswith(("-I", "-D", "-std=")):
            out.append(word)
    return out


def find_in(root, file, command):
    """All sites of a file, in their order. `file` is relative to the root."""
    path = os.path.join(root, file)
    with open(path, "rb") as source:
        raw = source.read()
    text = raw.decode("latin-1")  # a character a byte, as libclang counts
    unit = Index.create().parse(path, args=arguments_of(command))
    finder = Finder(path, text)
    for cursor in unit.cursor.get_children():
        if cursor.location.file and cursor.location.file.name == path:
            finder.walk(cursor)
    seen, sites = set(), []
    for site in finder.sites:
        key = (site.begin, site.end, site.mistaken)
        if key not in seen:
            seen.add(key)
            site.file = file
            sites.append(site)
    return sorted(sites, key=lambda s: (s.begin, s.end, s.mistaken))


def cached(root, build, file, command):
    """As `find_in`, kept in the build folder as long as the file is the same."""
    with open(os.path.join(root, file), "rb") as source:
        stamp = zlib.crc32(source.read() + open(__file__, "rb").read())
    kept = os.path.join(build, "sites", file.replace("/", "-") + ".json")
    try:
        with open(kept) as known:
            found = json.load(known)
        if found["stamp"] == stamp:
            return [Site(**s) for s in found["sites"]]
    except (OSError, ValueError, KeyError):
        pass
    sites = find_in(root, file, command)
    os.makedirs(os.path.dirname(kept), exist_ok=True)
    with open(kept, "w") as out:
        json.dump({"stamp": stamp, "sites": [dataclasses.asdict(s) for s in sites]}, out)
    return sites
