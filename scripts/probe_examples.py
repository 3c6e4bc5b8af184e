#!/usr/bin/env python3
"""Races every example: the failing one must go wrong in each run, what a move writes and the sound twin in none.

probe_examples.py ELMCART [RUNS]: RUNS of everything that is sound (200). About twenty minutes on two cores."""
import json
import pathlib
import shutil
import subprocess
import sys
import tempfile
import time

EXAMPLES = pathlib.Path(__file__).resolve().parent.parent / "examples"
# What the shared state is called, by check and language.
NAMES = {
    "thread.unguarded-creation": {"cpp": "TideTable", "java": "TideTable", "python": "TideTable", "go": "tideTable", "csharp": "TideTable"},
    "thread.lost-update": {"cpp": "CargoScale", "java": "CargoScale", "python": "scale", "go": "scale", "csharp": "CargoScale"},
    "thread.check-then-act": {"java": "BerthBook"},
    "thread.await-gap": {"javascript": "table", "python": "_table"},
    "lifetime.dangling-subscriber": {"cpp": "SignalMast", "java": "SignalMast", "python": "mast", "javascript": "mast", "csharp": "SignalMast"},
}


def race(program, check, language, name, failing, runs):
    with tempfile.TemporaryDirectory() as folder:
        for file in (EXAMPLES / check / language).glob("failing*" if failing else "sound*"):
            shutil.copy(file, folder)
        command = [program, "probe", "race", "--no-evidence", "--no-cache", "-q", "--format", "json", "--seconds", "600"]
        command += ["--runs", str(5 if failing else runs), "--sound-runs", str(runs if failing else 0), name, folder]
        begun = time.time()
        done = subprocess.run(command, capture_output=True, text=True)
        return json.loads(done.stdout)["races"] if done.stdout else done.stderr, time.time() - begun


def main():
    program, runs = sys.argv[1], int(sys.argv[2]) if len(sys.argv) > 2 else 200
    wrong = 0
    for check, languages in NAMES.items():
        for language, name in languages.items():
            for failing in (True, False):
                races, seconds = race(program, check, language, name, failing, runs)
                if isinstance(races, str):
                    print(f"{check} {language}: {races.strip()}")
                    wrong += 1
                    continue
                told = []
                for form in (form for each in races for form in each["forms"]):
                    told.append(f"{form['form']} {form['happened']} of {len(form['runs'])}")
                    bad = form["happened"] > 0 if form["form"] != "as it is" or not failing else form["happened"] < len(form["runs"])
                    wrong += bad or form["failed"] > 0
                print(f"{check} {language} {'failing' if failing else 'sound'}: {', '.join(told)}; {seconds:.1f} s", flush=True)
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
