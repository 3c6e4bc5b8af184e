#!/usr/bin/env python3
"""How much the unit tests notice: small faults are put into src/, all into one build, and the tests are run once with each.

    mutants.py draw LIST [--seed N] [--count N]   draws places, spread over the folders of src/, into LIST (JSON)
    mutants.py build LIST FOLDER                  copies the tree to FOLDER with a switch at each place, and builds its unit tests
    mutants.py run LIST FOLDER [--jobs N]         runs the unit tests with each switch on, up to the first failure; a table

A place is kept by its line's text, so the same list can be built again after the source has changed: the most alike
line of the same file, or else of any file, is taken, and a place that is gone is told. scripts/mutants.json is the list
by which changes of the tests are measured.
"""
import argparse
import concurrent.futures
import difflib
import json
import os
import random
import re
import shutil
import subprocess
import sys
import time

ROOT = os.path.dirname(os.path.dirname(os.path.abspath(__file__)))
OPERAND = r"[\w.\[\]>:-]+(?:\(\))?"


def sources(root):
    for folder, _, names in sorted(os.walk(os.path.join(root, "src"))):
        for name in sorted(names):
            # What starts the program and what is one long table is not what unit tests are for.
            if name.endswith(".cpp") and "/cli" not in folder:
                yield os.path.relpath(os.path.join(folder, name), root)


def condition(line):
    m = re.match(r"^(\s*(?:\} else )?if \()(.*)(\) (?:\{|return.*;|continue;|break;|[\w.\->]+(?: \+?= |\().*;))$", line)
    if not m or ";" in m[2] or re.match(r"^(auto|const|\w[\w:<>]*[*&]?) ?[*&]?\w+ = ", m[2]) or " = " in m[2]:
        return None
    if m[2].count("(") != m[2].count(")"):
        return None
    return m[1] + "mutantIs(@) != static_cast<bool>(" + m[2] + ")" + m[3]


def dropped(line):
    m = re.match(r"^(\s+)((?:\w[\w.\[\]]*(?:->|\.))?\w[\w.\[\]>-]*(?:\(.*\)| (?:=|\+=|\|=) .*);)$", line)
    if not m or m[2].startswith(("return", "static", "using", "throw", "delete", "case")) or "{" in m[2] or m[2].count("(") != m[2].count(")"):
        return None
    return m[1] + "{ if (!mutantIs(@)) " + m[2] + " }"


def swapped(line):
    m = re.search(r"\b(\w+)\((\w+), (\w+)\)", line)
    if not m or m[1] in ("if", "for", "while") or m[2] == m[3] or not line.startswith("  ") or line.lstrip().startswith("//"):
        return None
    return line[: m.start()] + f"(mutantIs(@) ? {m[1]}({m[3]}, {m[2]}) : {m[0]})" + line[m.end():]


def bound(line):
    m = re.search(rf"(?<![\w<>])({OPERAND}) (<|<=|>|>=) ({OPERAND})(?![\w(])", line)
    if not m or "template" in line or not line.startswith("  ") or line.lstrip().startswith("//"):
        return None
    other = {"<": "<=", "<=": "<", ">": ">=", ">=": ">"}[m[2]]
    return line[: m.start()] + f"(mutantIs(@) ? {m[1]} {other} {m[3]} : {m[0]})" + line[m.end():]


KINDS = {"condition": condition, "statement": dropped, "argument": swapped, "bound": bound}


def compiles(root, path, text, build):
    """Asks the compiler, with the command by which the file was built."""
    for entry in json.load(open(os.path.join(build, "compile_commands.json"))):
        if entry["file"] == os.path.join(root, path):
            break
    else:
        return False
    beside = os.path.join(root, os.path.dirname(path), "mutant_trial.cpp")
    with open(beside, "w") as out:
        out.write("static bool mutantIs(int n) { return n == 7; }\n" + text)
    try:
        command = re.sub(r" -o \S+", "", entry["command"]).replace(" -c ", " -fsyntax-only ").replace(os.path.join(root, path), beside)
        return subprocess.run(command + " -Wno-error", shell=True, cwd=entry["directory"], capture_output=True).returncode == 0
    finally:
        os.remove(beside)


def draw(args):
    random.seed(args.seed)
    by_folder = {}
    for path in sources(ROOT):
        lines = open(os.path.join(ROOT, path)).read().split("\n")
        for number, line in enumerate(lines):
            before = lines[number - 1].strip() if number else ""
            if number and not before.endswith((";", "{", "}", ")", "else", "/")) and before:
                continue
            for kind, change in KINDS.items():
                if change(line) and lines.count(line) == 1:
                    by_folder.setdefault(path.split("/")[1], []).append((path, number, kind, line))
    folders, places, kinds = sorted(by_folder), [], list(KINDS)
    while len(places) < args.count and folders:
        folder, kind = folders[len(places) % len(folders)], kinds[(len(places) + len(places) // len(folders)) % len(kinds)]
        choice = [c for c in by_folder[folder] if c[2] == kind and not any(p["line"] == c[3] for p in places)] or by_folder[folder]
        if not choice:
            folders.remove(folder)
            continue
        path, number, kind, line = random.choice(choice)
        lines = open(os.path.join(ROOT, path)).read().split("\n")
        lines[number] = KINDS[kind](line).replace("@", "7")
        if any(p["line"] == line for p in places) or not compiles(ROOT, path, "\n".join(lines), args.build):
            by_folder[folder].remove((path, number, kind, line))
            continue
        print(len(places), path, kind, line.strip(), flush=True)
        places.append({"file": path, "kind": kind, "line": line})
    json.dump(places, open(args.list, "w"), indent=1)


def find(place, texts):
    best = (0.7, None, None)
    for path, lines in texts.items():
        near = 0.02 if path == place["file"] else 0
        for number, line in enumerate(lines):
            if abs(len(line) - len(place["line"])) > 40 or not KINDS[place["kind"]](line):
                continue
            if line == place["line"]:
                score = 2 + near
            elif best[0] >= 2:
                continue
            else:
                matcher = difflib.SequenceMatcher(None, line, place["line"], autojunk=False)
                if matcher.quick_ratio() + near <= best[0]:
                    continue
                score = matcher.ratio() + near
            if score > best[0]:
                best = (score, path, number)
    return best


def build(args):
    places = json.load(open(args.list))
    target = os.path.abspath(args.folder)
    os.makedirs(target, exist_ok=True)
    for name in subprocess.run(["git", "ls-files"], cwd=ROOT, capture_output=True, text=True).stdout.split("\n"):
        if name and os.path.isfile(os.path.join(ROOT, name)):
            os.makedirs(os.path.dirname(os.path.join(target, name)) or target, exist_ok=True)
            shutil.copy2(os.path.join(ROOT, name), os.path.join(target, name))
    if not os.path.exists(os.path.join(target, "grammars/node_modules")):
        os.symlink(os.path.join(ROOT, "grammars/node_modules"), os.path.join(target, "grammars/node_modules"))
    texts = {path: open(os.path.join(target, path)).read().split("\n") for path in sources(target)}
    changed, gone = set(), []
    for index, place in enumerate(places):
        score, path, number = find(place, texts)
        if path is None:
            gone.append(index)
            continue
        line = texts[path][number]
        place["now"] = f"{path}:{number + 1}"
        if line != place["line"]:
            print(f"{index}: {place['line'].strip()}\n   is now, in {path}: {line.strip()}")
        texts[path][number] = KINDS[place["kind"]](line).replace("@", str(index + 1))
        changed.add(path)
    for path in changed:
        with open(os.path.join(target, path), "w") as out:
            out.write("bool mutantIs(int number);\n" + "\n".join(texts[path]))
    with open(os.path.join(target, "src/base/mutant.cpp"), "w") as out:
        out.write("#include <cstdlib>\nbool mutantIs(int number);\nbool mutantIs(int number) {\n  static const int active = std::getenv(\"ELMCART_MUTANT\") ? std::atoi(std::getenv(\"ELMCART_MUTANT\")) : 0;\n  return active == number;\n}\n")
    for index in gone:
        print(f"{index}: gone: {places[index]['line'].strip()}")
    json.dump(places, open(os.path.join(target, "mutants.json"), "w"), indent=1)
    # A fault may well be one that the compiler warns of.
    for lists in ("CMakeLists.txt", "tests/CMakeLists.txt"):
        path = os.path.join(target, lists)
        with open(path) as text:
            without = text.read().replace(" -Werror", "")
        with open(path, "w") as out:
            out.write(without)
    cmake = ["cmake", "-S", target, "-B", os.path.join(target, "build"), "-G", "Ninja", *args.cmake.split()]
    subprocess.run(cmake, check=True, stdout=subprocess.DEVNULL)
    subprocess.run(["cmake", "--build", os.path.join(target, "build"), "--target", "unit_tests"], check=True, stdout=subprocess.DEVNULL)


def run(args):
    target = os.path.abspath(args.folder)
    places = json.load(open(os.path.join(target, "mutants.json")))
    tests = os.path.join(target, "build/tests/unit_tests")

    def one(index):
        began = time.time()
        environment = dict(os.environ, ELMCART_MUTANT=str(index + 1))
        try:
            command = [tests, "--gtest_fail_fast", "--gtest_brief=1", "--gtest_filter=-" + args.without]
            done = subprocess.run(command, env=environment, capture_output=True, text=True, errors="replace", timeout=args.seconds, cwd=target)
            failed = re.search(r"\[  FAILED  \] (\S+)", done.stdout)
            how = "lives" if done.returncode == 0 else "killed by " + (failed[1].rstrip(",") if failed else f"an end with {done.returncode}")
        except subprocess.TimeoutExpired:
            how = "killed by its time limit"
        return how, time.time() - began

    killed = count = 0
    with concurrent.futures.ThreadPoolExecutor(args.jobs) as pool:
        wanted = [i for i, place in enumerate(places) if "now" in place]
        for index, (how, seconds) in zip(wanted, pool.map(one, wanted)):
            count += 1
            killed += how != "lives"
            print(f"{index:3} {places[index]['kind']:10} {places[index]['now']:45} {how} ({seconds:.0f} s)", flush=True)
    print(f"{killed} of {count} killed")


def main():
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("what", choices=["draw", "build", "run"])
    parser.add_argument("list")
    parser.add_argument("folder", nargs="?")
    parser.add_argument("--seed", type=int, default=18)
    parser.add_argument("--count", type=int, default=40)
    parser.add_argument("--jobs", type=int, default=2)
    parser.add_argument("--without", default="*MovesEverywhere*:*KeepsLineEnds*", help="tests that are not run: these take most of the time")
    parser.add_argument("--seconds", type=int, default=900)
    parser.add_argument("--cmake", default="-DELMCART_QUICK=ON", help="what CMake is told (CC and CXX name the compilers)")
    parser.add_argument("--build", default=os.path.join(ROOT, "build-test"))
    args = parser.parse_args()
    {"draw": draw, "build": build, "run": run}[args.what](args)


if __name__ == "__main__":
    sys.exit(main())
