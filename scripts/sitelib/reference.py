"""The reference: a page for each public header, made of what Doxygen reads there."""
import html
import pathlib
import re
import subprocess
import tempfile
import xml.etree.ElementTree as ET

EXPORTS = " ".join(f"APSIDON_{part}_{what}=" for part in ("CORE", "FILES", "DRAW", "STUDIO", "SDL") for what in ("EXPORT", "NO_EXPORT"))
SETTINGS = f"""
QUIET = YES
FILE_PATTERNS = *.hpp
RECURSIVE = YES
JAVADOC_AUTOBRIEF = YES
GENERATE_LATEX = NO
GENERATE_HTML = NO
GENERATE_XML = YES
XML_PROGRAMLISTING = NO
EXCLUDE_SYMBOLS = *_detail *_detail::* operator==
MACRO_EXPANSION = YES
EXPAND_ONLY_PREDEF = YES
PREDEFINED = {EXPORTS}
"""
KINDS = {"struct": "struct", "class": "class", "enum": "enumeration", "function": "function", "friend": "function",
         "typedef": "type", "variable": "constant"}
# Members of a namespace are left out unless it is described itself.
NAMESPACES = "/** @namespace apsidon\nAll. */\n/** @namespace apsidon::rule\nRules. */\n/** @namespace apsidon::goal\nGoals. */\n"


def read_headers(root):
    """What Doxygen reads in include/, and its complaints, a line each."""
    with tempfile.TemporaryDirectory() as folder:
        folder = pathlib.Path(folder)
        (folder / "namespaces.hpp").write_text(NAMESPACES)
        (folder / "Doxyfile").write_text(f"INPUT = {root}/include {folder}/namespaces.hpp\nSTRIP_FROM_PATH = {root}/include\n"
                                         f"OUTPUT_DIRECTORY = {folder}\n{SETTINGS}")
        done = subprocess.run(["doxygen", "Doxyfile"], cwd=folder, capture_output=True, text=True, check=True)
        complaints = [line.replace(f"{root}/", "") for line in done.stderr.splitlines() if "warning" in line or "error" in line]
        trees = [ET.parse(file).getroot() for file in sorted((folder / "xml").glob("*.xml"))
                 if file.name.startswith(("struct", "class", "namespace"))]
    return trees, complaints


def text_of(node):
    return "".join(node.itertext()) if node is not None else ""


def tidied(code):
    """A declaration as the house writes it, without the name of the library."""
    code = re.sub(r"\bapsidon::(?=\w)", "", code)
    code = re.sub(r"\s*([&*]+)\s*(?=\w)", r"\1 ", re.sub(r"\s+([&*]+)(?=[),>]|$)", r"\1", code))
    code = re.sub(r"<\s+", "<", re.sub(r"\s+>", ">", code))
    return re.sub(r"(?<=[\w>&*])=(?=[\w{\"-])", " = ", code).strip()


class Member:
    """One thing that a header declares: a type, a function, a constant, or a member of a type."""

    def __init__(self, node, owner=None):
        self.owner = owner
        self.kind = node.get("kind")
        self.id = node.get("id")
        name = text_of(node.find("compoundname") if node.tag == "compounddef" else node.find("name"))
        self.name = name.removeprefix("apsidon::").split("::")[-1] if node.tag != "compounddef" else name.removeprefix("apsidon::")
        self.space = ""
        place = node.find("location")
        self.header, self.line = place.get("file"), int(place.get("line"))
        self.brief, self.detail = node.find("briefdescription"), node.find("detaileddescription")
        self.type = text_of(node.find("type"))
        self.arguments = text_of(node.find("argsstring"))
        self.initial = text_of(node.find("initializer"))
        self.values = [(text_of(v.find("name")), v) for v in node.findall("enumvalue")]
        self.static = node.get("static") == "yes"
        self.template = node.find("templateparamlist")
        self.members = []
        if node.tag == "compounddef" and self.kind in ("struct", "class"):
            found = [Member(m, self) for m in node.iter("memberdef") if m.get("prot") == "public"]
            self.members = sorted((m for m in found if m.header == self.header and m.name[0] != "~"), key=lambda m: m.line)

    @property
    def kind_in_words(self):
        return "member" if self.kind == "variable" and self.owner else KINDS.get(self.kind, self.kind)

    @property
    def full_name(self):
        """As it is written where it is used: `Table::move`, `rule::rank_down`."""
        scope = self.owner.name if self.owner else self.space
        return f"{scope}::{self.name}" if scope else self.name

    @property
    def anchor(self):
        return re.sub(r"[^\w-]", "-", self.full_name) + f"-{self.line}"

    @property
    def declaration(self):
        template = ""
        if self.template is not None:
            names = ", ".join(tidied(text_of(p.find("type")) + " " + text_of(p.find("declname"))) for p in self.template)
            template = f"template <{names}>\n"
        if self.kind in ("struct", "class"):
            return f"{template}{self.kind} {self.name}"
        if self.kind == "enum":
            return f"enum class {self.name}"
        if self.kind == "typedef":
            return f"using {self.name} = {tidied(self.type)}"
        static = "static " if self.static and self.owner and not self.type.startswith("static") else ""
        code = f"{static}{tidied(self.type)} {self.name}{tidied(self.arguments)}".strip()
        if self.kind == "variable" and self.initial:
            code += " " + re.sub(r"\s+", " ", self.initial)
        return template + re.sub(r"=(default|delete)$", r" = \1", code)


def read_reference(root):
    """By header, what it declares, in its order; and the complaints."""
    trees, complaints = read_headers(root)
    headers = {}
    for tree in trees:
        compound = tree.find("compounddef")
        if compound.get("kind") == "namespace":
            space = text_of(compound.find("compoundname")).removeprefix("apsidon").removeprefix("::")
            for node in compound.iter("memberdef"):
                member = Member(node)
                member.space = space
                headers.setdefault(member.header, []).append(member)
        elif compound.get("prot") != "private" and (compound.find("location").get("file") or "").startswith("apsidon/"):
            member = Member(compound)
            headers.setdefault(member.header, []).append(member)
    for members in headers.values():
        members.sort(key=lambda m: m.line)
    return dict(sorted((h, m) for h, m in headers.items() if h.startswith("apsidon/"))), complaints


def notes_in(header):
    """What a header says of all that follows: comments by themselves, between blank lines; with the line of each."""
    lines = header.read_text().splitlines()
    notes = []
    for first, line in enumerate(lines):
        if not re.match(r"\s+// ", line) or lines[first - 1].strip():
            continue
        last = first
        while re.match(r"\s+//( |$)", lines[last]):
            last += 1
        if not lines[last].strip():
            text = " ".join(re.sub(r"\s+// ?", "", part) for part in lines[first:last])
            notes.append((first + 1, re.sub(r"`([^`]+)`", r"<code>\1</code>", html.escape(text))))
    return notes


class Writer:
    """Makes HTML of members. `link_of` gives the address of what an id of Doxygen's names, or nothing; `notes` are those
    of the header."""

    def __init__(self, link_of, code, notes):
        self.link_of = link_of
        self.code = code  # of a piece of C++: its HTML
        self.notes = notes

    def inline(self, node):
        """Of a description: text with its code, lists and links."""
        out = [html.escape(node.text or "")]
        for child in node:
            out.append(self._child(child))
            out.append(html.escape(child.tail or ""))
        return "".join(out)

    def _child(self, node):
        if node.tag in ("verbatim", "programlisting", "preformatted"):
            lines = ["".join(" " if p.tag == "sp" else (p.text or "") for p in line.iter() if p.tag in ("highlight", "sp"))
                     for line in node.findall("codeline")] if node.tag == "programlisting" else [text_of(node)]
            if node.tag == "programlisting":
                lines = [self._code_line(line) for line in node.findall("codeline")]
            return self.code("\n".join(lines).strip("\n"))
        if node.tag == "ref":
            link = self.link_of(node.get("refid"))
            text = self.inline(node)
            return f'<a href="{link}">{text}</a>' if link else text
        if node.tag == "computeroutput":
            return f"<code>{self.inline(node)}</code>"
        tag = {"para": "p", "emphasis": "em", "bold": "strong", "itemizedlist": "ul", "orderedlist": "ol", "listitem": "li",
               "superscript": "sup", "subscript": "sub"}.get(node.tag)
        if node.tag in ("simplesect", "parameterlist"):
            tag = "div"
        return f"<{tag}>{self.inline(node)}</{tag}>" if tag else self.inline(node)

    @staticmethod
    def _code_line(line):
        out = []

        def walk(node):
            if node.tag == "sp":
                out.append(" ")
            out.append(node.text or "")
            for child in node:
                walk(child)
                out.append(child.tail or "")
        walk(line)
        return "".join(out).rstrip("\n")

    def description(self, member):
        return self.both(member.brief, member.detail)

    def both(self, brief, detail):
        """The first sentence and the others, as one paragraph where they were one."""
        out = [self.inline(d).strip() for d in (brief, detail) if d is not None]
        return " ".join(out).replace("</p> <p>", " ", 1)

    def entry(self, member, level):
        values = "".join(self.value(member, *value) for value in member.values)
        table = f"<table class='values'>{values}</table>" if values else ""
        out = [f"<section class='member' id='{member.anchor}'>",
               f"<h{level}>{html.escape(member.full_name)}</h{level}>" if level < 4 else "",
               self.code(member.declaration), self.description(member), table]
        fields = [m for m in member.members if m.kind == "variable"]
        others = [m for m in member.members if m.kind != "variable"]
        if fields:
            rows = "".join(f"<tr id='{m.anchor}'><td>{self.code(m.declaration)}</td><td>{self.description(m)}</td></tr>" for m in fields)
            out.append(f"<table class='members'>{rows}</table>")
        before = member.line
        for other in others:
            out += [f"<p class='note'>{text}</p>" for line, text in self.notes if before < line < other.line]
            out.append(self.entry(other, 4))
            before = other.line
        return "".join(out) + "</section>"

    def value(self, member, name, node):
        said = self.both(node.find("briefdescription"), node.find("detaileddescription"))
        return f"<tr id='{member.anchor}-{name}'><td><code>{name}</code></td><td>{said}</td></tr>"
