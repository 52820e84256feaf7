"""Plants mistakes chosen by a machine, all in one build, and shows which of them no test finds.

Each mistake stands in a copy of the sources behind a switch, `planted(N)`, that the environment sets when a program
starts. So a mistake costs a run of the tests that reach it, and no build. Which tests reach it is asked first: with
APSIDON_PLANTED_TRACE each process writes down the switches that it comes by.
"""
import argparse
import collections
import concurrent.futures as futures
import hashlib
import itertools
import json
import multiprocessing
import os
import re
import select
import shutil
import signal
import subprocess
import sys
import tempfile
import time

import sites as finding

ROOT = os.path.dirname(os.path.dirname(os.path.dirname(os.path.abspath(__file__))))
BUILD = os.path.join(ROOT, "build", "planted")
TREE = os.path.join(BUILD, "tree")
TESTED = os.path.join(ROOT, "build", "debug")
SAME = os.path.join(ROOT, "scripts", "mutants", "same.txt")
PARTS = ["geometry", "cards", "layout", "motion", "hit", "rules", "gesture", "play", "files", "art", "draw", "studio", "sdl", "tool"]
PROGRAMS = ["apsidon_tests", "apsidon_room_tests"]
# What waits for a display takes long and depends on the clock: it is run for the parts that have windows only.
WITH_DISPLAY = ("sdl",)
JOBS = os.cpu_count() or 1
DECLARATION = 'namespace apsidon { __attribute__((visibility("default"))) bool planted(unsigned) noexcept; }\n#line 1\n'
SWITCH = """#include <atomic>
#include <cstdio>
#include <cstdlib>
#include <string>
#include <unistd.h>
namespace apsidon {
__attribute__((visibility("default"))) bool planted(unsigned) noexcept;
namespace {
struct PlantedSwitch {
  unsigned on = std::getenv("APSIDON_PLANTED") ? static_cast<unsigned>(std::atoi(std::getenv("APSIDON_PLANTED"))) : 0;
  const char* trace = std::getenv("APSIDON_PLANTED_TRACE");
  std::atomic<bool> come_by[10000] = {};
};
}  // namespace
bool planted(unsigned n) noexcept {
  static PlantedSwitch* const set = new PlantedSwitch;
  if (set->trace && !set->come_by[n].exchange(true)) {
    const std::string file = std::string(set->trace) + "/" + std::to_string(::getpid());
    if (std::FILE* out = std::fopen(file.c_str(), "a")) {
      std::fprintf(out, "%u\\n", n);
      std::fclose(out);
    }
  }
  return n == set->on;
}
}  // namespace apsidon
"""


def part_of(file):
    return "tool" if file.startswith("tools/") else file.split("/")[1]


def say(text):
    print(text, flush=True)


def read(path):
    with open(path, "rb") as source:
        return source.read().decode("latin-1")


def write(path, text):
    """Leaves a file alone that holds this already, so that nothing is built for it."""
    if os.path.exists(path) and read(path) == text:
        return
    os.makedirs(os.path.dirname(path), exist_ok=True)
    with open(path, "wb") as out:
        out.write(text.encode("latin-1"))


def sources():
    """Which sources there are, and how each is compiled by itself."""
    plain = os.path.join(BUILD, "plain")
    subprocess.run(["cmake", "--preset", "debug", "-B", plain, "-DCMAKE_UNITY_BUILD=OFF"], cwd=ROOT, check=True, stdout=subprocess.DEVNULL)
    with open(os.path.join(plain, "compile_commands.json")) as commands:
        found = {os.path.relpath(c["file"], ROOT): c["command"] for c in json.load(commands)}
    return {f: c for f, c in sorted(found.items()) if f.startswith(("src/", "tools/apsidon/"))}


def find(job):
    file, command = job
    return finding.cached(ROOT, BUILD, file, command)


def all_sites(commands):
    with multiprocessing.Pool(JOBS) as pool:
        return [site for found in pool.imap(find, commands.items(), chunksize=4) for site in found]


def known_same():
    """What cannot change behaviour: FILE|LINE AS IT STANDS|MISTAKE|REASON."""
    known = set()
    for line in open(SAME, encoding="utf-8") if os.path.exists(SAME) else []:
        fields = re.split(r"(?<!\\)\|", line.rstrip("\n"))
        if len(fields) == 4 and not line.startswith("#"):
            known.add(tuple(f.replace("\\|", "|").strip() for f in fields[:3]))
    return known


def name_of(site, texts):
    text = texts[site.file]
    line = text.splitlines()[site.line - 1].strip()
    return site.file, line.encode("latin-1").decode(), site.what(text).encode("latin-1", "ignore").decode("utf-8", "ignore")


def squeezed_line(text, number):
    return " ".join(text.splitlines()[number - 1].split())


def choose(found, texts, args):
    """One mistake a line, the lines by chance, all of them in an order that the seed gives: the same for as long as a line stays as it is, whatever changes
    elsewhere."""
    lines = collections.defaultdict(list)
    for site in found:
        if args.part in (None, part_of(site.file)):
            lines[site.file, site.line].append(site)
    seen, chance = collections.Counter(), {}
    for file, number in sorted(lines):
        words = file, squeezed_line(texts[file], number)
        seen[words] += 1
        chance[file, number] = int.from_bytes(hashlib.sha256(repr((args.seed, words, seen[words])).encode()).digest()[:8], "big")
    chosen, taken = [], collections.defaultdict(list)
    for key in sorted(lines, key=chance.get):
        site = lines[key][chance[key] % len(lines[key])]
        if any(site.begin < e and b < site.end for b, e in taken[site.file]):
            continue
        taken[site.file].append((site.begin, max(site.end, site.begin + 1)))
        chosen.append(site)
    return chosen


def plant(planted, texts):
    """Writes the copy of the tree. A number stays that of its mistake, so that little is built again without another."""
    by_file = collections.defaultdict(list)
    for number, site in planted.items():
        by_file[site.file].append((number, site))
    listed = subprocess.run(["git", "ls-files"], cwd=ROOT, capture_output=True, text=True, check=True).stdout.split("\n")
    for file in filter(None, listed):
        if file.startswith(("src/", "tools/", "include/", "cmake/", "examples/", "tests/", "CMake", "data/schemas", "README", "LICENSE")):
            if os.path.exists(os.path.join(ROOT, file)):
                write(os.path.join(TREE, file), planted_text(texts.get(file) or read(os.path.join(ROOT, file)), by_file[file]))
    write(os.path.join(TREE, "src/geometry/planted.cpp"), SWITCH)


def planted_text(text, here):
    if not here:
        return text
    for number, site in sorted(here, key=lambda h: h[1].begin, reverse=True):
        original = text[site.begin:site.end]
        test = f"::apsidon::planted({number}u)"
        if site.shape == "entry":
            new = f" if ({test}) {site.mistaken} "
        elif site.shape == "statement":
            new = f"if ({test}) {{}} else {original}"
        elif site.kind == "side dropped" or original.startswith("!"):
            # A component that may be missing would be made of the `bool` of the other branch, and be there.
            new = f"({test} ? static_cast<bool>({site.mistaken}) : ({original}))"
        else:
            new = f"({test} ? ({site.mistaken}) : ({original}))"
        if "\n" in site.mistaken:  # lines keep their numbers
            new = new.replace(site.mistaken, re.sub(r"\s*\n\s*", " ", site.mistaken), 1)
        text = text[:site.begin] + new + text[site.end:]
    return DECLARATION + text


def build():
    """Returns the lines that do not compile, by file; none: it is built."""
    if not os.path.exists(os.path.join(BUILD, "build", "build.ninja")):
        subprocess.run(["cmake", "-S", TREE, "-B", os.path.join(BUILD, "build"), "-G", "Ninja", "-DCMAKE_BUILD_TYPE=Debug",
                        "-DCMAKE_CXX_FLAGS_DEBUG=-O1 -g0", "-DBUILD_SHARED_LIBS=ON", "-DCMAKE_UNITY_BUILD=ON", "-DAPSIDON_WERROR=OFF", "-DCMAKE_CXX_FLAGS=-w"],
                       check=True, stdout=subprocess.DEVNULL)
    out = subprocess.run(["ninja", "-C", os.path.join(BUILD, "build"), "-j", str(JOBS), "-k", "0", "apsidon_tool", "apsidon_sdl", "apsidon_room_tests"],
                         capture_output=True, text=True)
    if out.returncode == 0:
        return {}
    broken = collections.defaultdict(set)
    # An error may be told within a header, for a line of ours that is named before or after it.
    for file, line in re.findall(re.escape(TREE) + r"/((?:src|tools)/[^:\s]+\.cpp):(\d+)", out.stdout):
        broken[file].add(int(line))
    if not broken:
        sys.exit(out.stdout[-4000:])
    return broken


def environment(**more):
    libraries = os.path.join(BUILD, "build", "src")
    # A case that fails is not made smaller: nobody reads it.
    env = dict(os.environ, LD_LIBRARY_PATH=libraries, RC_PARAMS=os.environ.get("RC_PARAMS", "seed=20261125") + " noshrink=1", LC_ALL="C.UTF-8",
               APSIDON_TOOL=os.path.join(BUILD, "build", "tools", "apsidon", "apsidon"))
    env.update(more)
    return env


def program(name):
    return os.path.join(BUILD, name)


def take_programs():
    """Copies, so that both build folders may be built again meanwhile. The rooms' tests have the core within them."""
    shutil.copy2(os.path.join(TESTED, "tests", "apsidon_tests"), program("apsidon_tests"))
    shutil.copy2(os.path.join(BUILD, "build", "tests", "apsidon_room_tests"), program("apsidon_room_tests"))


def run(command, seconds, **more):
    """Returns the exit code, what was printed, and the seconds; what prints nothing for so long is a loop, and ends with code 'time'."""
    began = time.monotonic()
    process = subprocess.Popen(command, env=environment(**more), stdout=subprocess.PIPE, stderr=subprocess.STDOUT,
                               cwd=BUILD, start_new_session=True)
    out, code = b"", None
    while True:
        if not select.select([process.stdout], [], [], seconds)[0]:
            if process.poll() is not None:  # what it has started still has its output
                break
            os.killpg(process.pid, signal.SIGKILL)
            code = "time"
            break
        more_out = os.read(process.stdout.fileno(), 65536)
        if not more_out:
            break
        out += more_out
    process.wait()
    process.stdout.close()
    return process.returncode if code is None else code, out.decode("utf-8", "replace"), time.monotonic() - began


def listed_tests():
    tests = []
    for name in PROGRAMS:
        out = subprocess.run([program(name), "--list-test-names-only"], env=environment(), capture_output=True, text=True).stdout
        tests += [(name, test) for test in filter(None, out.split("\n"))]
    return tests


def run_tests(name, tests, seconds, **more):
    """Runs tests of a program one after another, to the first that fails."""
    with tempfile.NamedTemporaryFile("w", suffix=".txt", delete=False) as names:
        names.write("".join(re.sub(r"([,\[\]\"])", r"\\\1", test) + "\n" for test in tests))
    try:
        return run([program(name), "--abort", "--durations", "yes", "--input-file", names.name], seconds, **more)
    finally:
        os.unlink(names.name)


def reach(test):
    """Which switches a test comes by, and how long it takes."""
    name, title = test
    trace = tempfile.mkdtemp(dir=BUILD)
    try:
        code, out, seconds = run_tests(name, [title], 300, APSIDON_PLANTED_TRACE=trace)
        come_by = {int(n) for f in os.listdir(trace) for n in read(os.path.join(trace, f)).split()}
        return test, code, seconds, come_by, out
    finally:
        shutil.rmtree(trace)


def hunt(job):
    """Whether a test finds a mistake, and which."""
    number, tests, cost, most = job
    tests = sorted(tests, key=lambda t: cost[t])
    tests = [t for t, so_far in zip(tests, itertools.accumulate(cost[t] for t in tests)) if so_far <= most]
    quick = [t for t in tests if cost[t] < 3]
    batches = [quick[:30], quick[30:130], quick[130:]] + [[t] for t in tests[len(quick):]]
    for batch in batches:
        for name in PROGRAMS:
            titles = [title for program_name, title in batch if program_name == name]
            if not titles:
                continue
            limit = 10 + 5 * max(cost[name, title] for title in titles)
            code, out, _ = run_tests(name, titles, limit, APSIDON_PLANTED=str(number))
            if code == "time":
                return number, "a loop"
            if code != 0:
                line = re.search(r"-{20,}\n(.*?)\n-{20,}", out, re.S)
                return number, re.sub(r"\s+", " ", line[1]) if line else f"exit {code}"
    return number, None


def main():
    parser = argparse.ArgumentParser(prog="scripts/mutations", description=__doc__)
    parser.add_argument("--sample", type=int, required=True, metavar="N", help="how many mistakes")
    parser.add_argument("--seed", type=int, default=1, metavar="S", help="another seed, other mistakes")
    parser.add_argument("--part", choices=PARTS, help="of this part alone")
    parser.add_argument("--again", action="store_true", help="only those that no test has found so far; all are counted")
    parser.add_argument("--quick", action="store_true", help="a fifth of the cases of each property, and a minute of tests for each mistake, 150 s where windows are: --again asks what is left with all")
    args = parser.parse_args()
    if args.quick:
        os.environ["RC_PARAMS"] = os.environ.get("RC_PARAMS", "seed=20261125") + " max_success=20"
    most_seconds = {False: 60, True: 150} if args.quick else dict.fromkeys((False, True), float("inf"))
    os.makedirs(BUILD, exist_ok=True)

    say("looking for places that can hold a mistake …")
    commands = sources()
    texts = {file: read(os.path.join(ROOT, file)) for file in commands}
    found = all_sites(commands)
    say(f"  {len(found)} mistakes on {len({(s.file, s.line) for s in found})} lines of {len(texts)} files")

    # Some are on lines that no test runs, some do not compile: more are planted than are asked for.
    chosen = choose(found, texts, args)[:args.sample + args.sample // 4 + 10]
    same = known_same()
    planted = {n: site for n, site in enumerate(chosen, 1) if name_of(site, texts) not in same}
    for _ in range(8):
        say(f"building {len(planted)} of them in build/planted …")
        plant(planted, texts)
        broken = build()
        if not broken:
            break
        bad = [n for n, s in planted.items() if s.line in broken.get(s.file, ())]
        if not bad:
            sys.exit("the copy does not build, and no mistake stands where: " + ", ".join(f"{f}:{min(l)}" for f, l in broken.items()))
        say(f"  {len(bad)} do not compile and are left out")
        for number in bad:
            del planted[number]
    else:
        sys.exit("after eight tries the copy still does not build: see ninja -C build/planted/build")

    say("asking which tests reach which …")
    take_programs()
    tests, cost, reached = listed_tests(), {}, collections.defaultdict(list)
    with futures.ThreadPoolExecutor(JOBS) as pool:
        for test, code, seconds, come_by, out in pool.map(reach, tests):
            cost[test] = seconds
            if code != 0:
                say(f"  without a mistake '{test[1]}' fails: it is left out")
                say(out[-1500:])
                continue
            for number in come_by:
                reached[number].append(test)
    numbers = [n for n in planted if reached[n]][:args.sample]
    unreached = [n for n in planted if not reached[n]]
    say(f"  {len(unreached)} of {len(planted)} stand where no test comes by; of the others {len(numbers)} are tried")
    breadth = collections.Counter(t for tests_of in reached.values() for t in tests_of)

    def tests_for(number):
        windows = part_of(planted[number].file) in ("sdl", "tool")
        of = [t for t in reached[number] if windows or not t[1].startswith(WITH_DISPLAY)]
        return of or reached[number]

    memory = os.path.join(BUILD, f"found-{args.sample}-{args.seed}-{args.part or 'all'}.json")
    found_before = {}
    if args.again and os.path.exists(memory):
        with open(memory, encoding="utf-8") as kept:
            found_before = json.load(kept)
    key = {n: "|".join(name_of(planted[n], texts)) for n in numbers}
    survivors, hits, done = [], collections.Counter(), 0
    for n in numbers:
        hits[part_of(planted[n].file)] += key[n] in found_before
    # What waits for a window comes last, twice as many at a time.
    waits = {n: any(t[1].startswith(WITH_DISPLAY) for t in tests_for(n)) for n in numbers}
    hunted = sorted((n for n in numbers if key[n] not in found_before), key=waits.get)
    for jobs, group in ((JOBS, [n for n in hunted if not waits[n]]), (2 * JOBS, [n for n in hunted if waits[n]])):
        with futures.ThreadPoolExecutor(jobs) as pool:
            asked = [pool.submit(hunt, (n, tests_for(n), cost, most_seconds[waits[n]])) for n in group]
            for answer in futures.as_completed(asked):
                number, by = answer.result()
                site = planted[number]
                done += 1
                where = f"{site.file}:{site.line}: {site.what(texts[site.file])}"
                if by:
                    found_before[key[number]] = by
                    with open(memory, "w", encoding="utf-8") as kept:
                        json.dump(found_before, kept, indent=1)
                    hits[part_of(site.file)] += 1
                    say(f"  {done}/{len(hunted)} {where} found: {by}")
                else:
                    nearest = min(tests_for(number), key=lambda t: breadth[t])
                    survivors.append(f"{where}\n    {name_of(site, texts)[1]}\n    nearest: '{nearest[1]}' of {len(tests_for(number))}")
                    say(f"  {done}/{len(hunted)} {where} SURVIVED")

    say("")
    for survivor in survivors:
        say(survivor)
    for number in unreached:
        site = planted[number]
        say(f"{site.file}:{site.line}: no test comes by")
    total = collections.Counter(part_of(planted[n].file) for n in numbers)
    say(f"\n{'part':<10} {'planted':>7} {'found':>6} {'share':>6}")
    for part in PARTS:
        if total[part]:
            say(f"{part:<10} {total[part]:>7} {hits[part]:>6} {100 * hits[part] / total[part]:>5.1f}%")
    all_hits = sum(hits.values())
    say(f"{'all':<10} {len(numbers):>7} {all_hits:>6} {100 * all_hits / max(1, len(numbers)):>5.1f}%")
    return 0


if __name__ == "__main__":
    sys.exit(main())
