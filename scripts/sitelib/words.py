"""Words, headings, and which page is about what was asked: what the questions and the site look up by."""
import math
import re

COMMON = set("a an and are as at be by can do does for from have how i if in is it its me my not of on one or so that the "
             "then this to too want what when where which who why will with you your".split())


def words_of(text):
    """Lower-case words without endings, so that `dragged` finds `drag`; words with an underscore in parts as well.

    `wordsOf` in docs/site/site.js does the same.
    """
    out = []
    for word in re.findall(r"[a-z0-9]+(?:[_-][a-z0-9]+)*", text.lower()):
        for part in dict.fromkeys([word, *re.split(r"[_-]", word)]):
            part = re.sub(r"(?<=[a-z]{3})(ings?|ed|es|s)$", "", part)
            part = re.sub(r"(.)\1$", r"\1", part)
            if part not in COMMON:
                out.append(part)
    return out


def anchor_of(heading):
    """The anchor that a heading of Markdown has."""
    text = re.sub(r"[`*]", "", heading).strip().lower()
    return re.sub(r"\s", "-", re.sub(r"[^\w\s-]", "", text))


def headings_of(text):
    """Headings of a page of Markdown, those within blocks of code left out."""
    return re.findall(r"^#+ (.*)$", re.sub(r"^```.*?^```", "", text, flags=re.M | re.S), re.M)


class Index:
    """Ranks pages by BM25 (Robertson and Zaragoza 2009, k1 = 1.2, b = 0.5); a word in a heading counts five times."""

    def __init__(self, pages):
        """`pages`: what is found, with its text."""
        self.weights = {}  # by word, by page: what the page gets for it
        counts = {page: self._count(text) for page, text in pages.items()}
        holders = {}
        for of_page in counts.values():
            for word in of_page:
                holders[word] = holders.get(word, 0) + 1
        mean = sum(sum(c.values()) for c in counts.values()) / max(len(pages), 1)
        for page, of_page in counts.items():
            length = sum(of_page.values()) / mean
            for word, n in of_page.items():
                rarity = math.log(1 + (len(pages) - holders[word] + 0.5) / (holders[word] + 0.5))
                weight = rarity * n * 2.2 / (n + 1.2 * (0.5 + 0.5 * length))
                self.weights.setdefault(word, {})[page] = weight

    @staticmethod
    def _count(text):
        counts = {}
        for word in words_of(text) + 4 * words_of(" ".join(headings_of(text))):
            counts[word] = counts.get(word, 0) + 1
        return counts

    def search(self, words):
        scores = {}
        for word in set(words):
            for page, weight in self.weights.get(word, {}).items():
                scores[page] = scores.get(page, 0) + weight
        return sorted(scores, key=lambda page: -scores[page])
