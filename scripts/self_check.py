#!/usr/bin/env python3
"""Does what the program says of a tree contradict itself? One line for each contradiction.

    self_check.py ELMCART FOLDER ...

Ends with 1 when there is one. What is held:
  a value that can do no harm is written by nobody once its module is loaded;
  shared state is used by somebody, or others can reach it;
  every creation has a place, but one that is said to be elsewhere;
  every use stands in a file of the tree;
  what is enforced has no opening, and no finding that says how to make a second;
  what the language guards, or makes before anybody asks, is not said to be made without a guard.
"""
import json
import os
import subprocess
import sys

# Reasons that tell of the one place which writes.
WRITTEN = ("it is worked out once", "it stands in code that a tool made", "a scratch value", "a module that is loaded when", "only the script's own lines")
SECOND = ("single.open-constructor", "single.copyable", "single.cloneable", "single.revivable", "single.subclassable")


def told(elmcart, what, folder):
    run = subprocess.run([elmcart, what, "--no-cache", "--format", "json"] + (["--all"] if what == "survey" else []) + [folder], capture_output=True)
    if run.returncode not in (0, 1, 3) or not run.stdout:
        sys.exit(f"{elmcart} {what} {folder}: exit {run.returncode}: {run.stderr.decode(errors='replace').strip()[-300:]}")
    return json.loads(run.stdout)


def contradictions(survey, assess, folder):
    found = []
    findings = {}
    for finding in assess.get("findings", []):
        if "members" not in finding:  # what it says of the object's members, it does not say of the slot
            findings.setdefault(finding.get("entity"), set()).add(finding["check"])
    for e in survey["entities"]:
        where = f"{e['file']}:{e['line']} {e['id']}"
        say = lambda text: found.append(f"{where}: {text}")
        if e["kind"] == "container-managed":
            continue
        for consumer in e["consumers"]:
            if not os.path.exists(os.path.join(folder, consumer["file"])):
                say(f"is used in {consumer['file']}, which is no file of the tree")
            if e["harmless"] and consumer["access"] == "write" and not consumer.get("whileLoading") and not e["because"].startswith(WRITTEN):
                say(f"can do no harm ({e['because']}), but {consumer['function']} writes it at {consumer['file']}:{consumer['line']}")
                break
        if e["harmless"]:
            continue
        if not e["consumers"] and not e["accessPoints"] and not e.get("state"):
            say("is shared state that nobody uses and nobody can reach")
        if e["creation"] != "elsewhere" and "created" not in e and e["kind"] not in ("static-holder", "singleton", "registry"):
            say(f"its creation is {e['creation']}, but has no place")
        if e["enforced"] and e["openings"]:
            say(f"is enforced, but {e['openings'][0]}")
        said = findings.get(e["id"], set())
        for check in said:
            if e["enforced"] and check in SECOND:
                say(f"is enforced, but {check} is reported")
        if "thread.unguarded-creation" in said and (e["guard"] != "none" or e["creation"] != "lazy"):
            say(f"is {e['creation']} with guard {e['guard']}, but thread.unguarded-creation is reported")
    return found


def main():
    if len(sys.argv) < 3:
        sys.exit(__doc__)
    count = 0
    for folder in sys.argv[2:]:
        for line in contradictions(told(sys.argv[1], "survey", folder), told(sys.argv[1], "assess", folder), folder):
            print(line)
            count += 1
    sys.exit(1 if count else 0)


if __name__ == "__main__":
    main()
