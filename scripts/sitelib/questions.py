"""The questions of docs/questions.md."""
import pathlib
import re

DOCS = pathlib.Path(__file__).resolve().parents[2] / "docs"


def read_questions():
    """Of each its line, and the question, its words, its answer, the name of its link and the link; or nothing, of one that
    is written otherwise."""
    found = []
    for number, line in enumerate((DOCS / "questions.md").read_text().splitlines(), 1):
        if not line.startswith("**"):
            continue
        match = re.fullmatch(r"\*\*(.+?)\*\* \*(.+?)\* (.+) \[(.+?)\]\((.+?)\)", line)
        found.append((number, match.groups() if match else None))
    return found


def target_of(link):
    name, _, anchor = link.partition("#")
    page = (DOCS / name).resolve() if name else DOCS / "questions.md"
    return page, anchor
