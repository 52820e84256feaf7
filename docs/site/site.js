// The search of the site: questions and pages by their words, names of the reference by what they are called.
"use strict";

const COMMON = new Set(INDEX.common);

// As `words_of` in scripts/sitelib/words.py.
function wordsOf(text) {
  const out = [];
  for (const word of text.toLowerCase().match(/[a-z0-9]+(?:[_-][a-z0-9]+)*/g) ?? []) {
    for (let part of new Set([word, ...word.split(/[_-]/)])) {
      part = part.replace(/(?<=[a-z]{3})(ings?|ed|es|s)$/, "").replace(/(.)\1$/, "$1");
      if (!COMMON.has(part)) out.push(part);
    }
  }
  return out;
}

// Of a list that is looked up by words, the best: [what it is called, what it is, where it is].
function findByWords({entries, weights}, text, most) {
  const scores = new Map();
  for (const word of new Set(wordsOf(text))) {
    for (const [entry, weight] of weights[word] ?? []) scores.set(entry, (scores.get(entry) ?? 0) + weight);
  }
  return [...scores].sort((a, b) => b[1] - a[1]).slice(0, most).map(([entry]) => entries[entry]);
}

// Names that have all that is typed in them: those that begin with it first, short ones before long ones.
function findNames(text) {
  const typed = text.toLowerCase().split(/\s+/).filter(Boolean);
  const rank = (name) => (name.toLowerCase().split("::").at(-1).startsWith(typed[0]) ? 0 : 1);
  return INDEX.names
    .filter(([name]) => typed.every((word) => name.toLowerCase().includes(word)))
    .sort((a, b) => rank(a[0]) - rank(b[0]) || a[0].length - b[0].length)
    .slice(0, 12);
}

const field = document.getElementById("search");
const found = document.getElementById("found");
const top_ = document.body.dataset.top;

function entry(title, kind, address) {
  const link = document.createElement("a");
  link.href = `${top_}/${address}`;
  link.textContent = title;
  const note = document.createElement("small");
  note.textContent = kind;
  link.append(" ", note);
  return link;
}

function show() {
  const text = field.value.trim();
  const all = text
    ? [...findByWords(INDEX.questions, text, 3), ...findByWords(INDEX.pages, text, 5), ...findNames(text)] : [];
  found.replaceChildren(...all.map((one) => entry(...one)));
  if (text && !found.children.length) found.textContent = "Nothing is called so. Other words may find it.";
  found.hidden = !text;
}

// Arrow keys go through what was found, Enter opens the first.
function step(by) {
  const links = [...found.querySelectorAll("a")];
  const at = links.indexOf(document.activeElement) + by;
  (links[at] ?? field).focus();
}

field.addEventListener("input", show);
field.addEventListener("focus", show);
document.addEventListener("keydown", (event) => {
  const within = found.contains(document.activeElement) || document.activeElement === field;
  if (event.key === "/" && document.activeElement !== field) {
    event.preventDefault();
    field.focus();
    field.select();
  } else if (event.key === "Escape" && within) {
    found.hidden = true;
    field.blur();
  } else if (within && (event.key === "ArrowDown" || event.key === "ArrowUp")) {
    event.preventDefault();
    step(event.key === "ArrowDown" ? 1 : -1);
  } else if (event.key === "Enter" && document.activeElement === field) {
    found.querySelector("a")?.click();
  }
});
document.addEventListener("click", (event) => {
  if (!found.contains(event.target) && event.target !== field) found.hidden = true;
});

const text = new URLSearchParams(location.search).get("search");
if (text) {
  field.value = text;
  show();
}
const here = document.querySelector("nav .here");
if (here) here.closest("nav").scrollTop = here.offsetTop - 200;
