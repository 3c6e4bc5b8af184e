#!/usr/bin/env python3
"""Does time grow faster than its input? One generated file a language and shape, at N and at 2 N; the ratio of the times.

    doubling.py [--elmcart PROGRAM] [--size N] [--most RATIO] [LANGUAGE ...]

Ends with 1 when a ratio is over the limit. Each time is the least of three runs, less the time of an empty tree.
"""
import argparse
import os
import subprocess
import sys
import tempfile
import time

C = {"end": ";", "comment": "//"}
LANGUAGES = {
    # ending, variable, base class chain, class + user, function around statements, import
    "cpp": ("cpp", "extern int a;", "class C{i} : public C{p} {{}};", ("class Hub {{ public: static Hub& get() {{ static Hub h; return h; }} void use() {{ ++n; }} int n = 0; }};", "void u{i}() {{ Hub::get().use(); }}"), ("int n; void f() {{", "  n = n + {i};", "}}"), "#include \"hub.h\""),
    "java": ("java", "class A{{ static int a; }}", "class C{i} extends C{p} {{}}", ("class Hub {{ static Hub hub = new Hub(); int n; void use() {{ n++; }} }}", "class U{i} {{ void u() {{ Hub.hub.use(); }} }}"), ("class F {{ static int n; void f() {{", "  n = n + {i};", "}} }}"), "import hub.Hub;"),
    "kotlin": ("kt", "var a = 1", "open class C{i} : C{p}()", ("object Hub {{ var n = 0; fun use() {{ n++ }} }}", "fun u{i}() {{ Hub.use() }}"), ("var n = 0\nfun f() {{", "  n = n + {i}", "}}"), "import hub.Hub"),
    "csharp": ("cs", "class A {{ static int a; }}", "class C{i} : C{p} {{}}", ("class Hub {{ public static Hub hub = new Hub(); int n; public void Use() {{ n++; }} }}", "class U{i} {{ void U() {{ Hub.hub.Use(); }} }}"), ("class F {{ static int n; void f() {{", "  n = n + {i};", "}} }}"), "using Hub;"),
    "python": ("py", "a = 1", "class C{i}(C{p}):\n    pass", ("class Hub:\n    def use(self):\n        self.n = 1\n\nhub = Hub()", "def u{i}():\n    hub.use()"), ("n = 0\ndef f():\n    global n", "    n = n + {i}", ""), "import hub"),
    "javascript": ("js", "var a = 1;", "class C{i} extends C{p} {{}}", ("class Hub {{ use() {{ this.n = 1; }} }}\nconst hub = new Hub();", "function u{i}() {{ hub.use(); }}"), ("let n = 0; function f() {{", "  n = n + {i};", "}}"), "import {{ hub }} from './hub.js';"),
    "typescript": ("ts", "var a = 1;", "class C{i} extends C{p} {{}}", ("class Hub {{ n = 0; use() {{ this.n = 1; }} }}\nconst hub = new Hub();", "function u{i}() {{ hub.use(); }}"), ("let n = 0; function f() {{", "  n = n + {i};", "}}"), "import {{ hub }} from './hub';"),
    "go": ("go", "var a int", "type C{i} struct {{ C{p} }}", ("type Hub struct{{ n int }}\nfunc (h *Hub) Use() {{ h.n++ }}\nvar hub = &Hub{{}}", "func u{i}() {{ hub.Use() }}"), ("var n int\nfunc f() {{", "  n = n + {i}", "}}"), "import \"hub\""),
    "php": ("php", "$a = 1;", "class C{i} extends C{p} {{}}", ("class Hub {{ static $hub; public $n; function use() {{ $this->n = 1; }} }}", "function u{i}() {{ Hub::$hub->use(); }}"), ("$n = 0; function f() {{ global $n;", "  $n = $n + {i};", "}}"), "use Hub\\Hub;"),
    "swift": ("swift", "var a = 1", "class C{i}: C{p} {{}}", ("class Hub {{ static let shared = Hub(); var n = 0; func use() {{ n += 1 }} }}", "func u{i}() {{ Hub.shared.use() }}"), ("var n = 0\nfunc f() {{", "  n = n + {i}", "}}"), "import Hub"),
    "objc": ("m", "extern int a;", "@interface C{i} : C{p}\n@end", ("@interface Hub : NSObject {{ int n; }}\n+ (Hub *)shared;\n- (void)use;\n@end\n@implementation Hub\n+ (Hub *)shared {{ static Hub *hub; if (!hub) hub = [[Hub alloc] init]; return hub; }}\n- (void)use {{ n++; }}\n@end", "void u{i}(void) {{ [[Hub shared] use]; }}"), ("int n;\nvoid f(void) {{", "  n = n + {i};", "}}"), "#import \"Hub.h\""),
    "dart": ("dart", "var a = 1;", "class C{i} extends C{p} {{}}", ("class Hub {{ int n = 0; void use() {{ n++; }} }}\nfinal hub = Hub();", "void u{i}() {{ hub.use(); }}"), ("var n = 0;\nvoid f() {{", "  n = n + {i};", "}}"), "import 'hub.dart';"),
}


def text(language, shape, count):
    _, variable, chain, (hub, user), (head, statement, tail), imported = LANGUAGES[language]
    begin = {"go": "package p\n", "php": "<?php\n"}.get(language, "")
    many = lambda line: [line.format(i=i, p=i - 1) for i in range(1, count + 1)]
    if shape == "one-name":
        lines = many(variable)
    elif shape == "base-chain":
        lines = many(chain)
    elif shape == "users":
        lines = [hub.format()] + many(user)
    elif shape == "statements":
        lines = [head.format()] + many(statement) + [tail.format()]
    elif shape == "operands":
        lines = [head.format(), statement.format(i=1).replace("+ 1", "+ " + " + ".join(["1"] * count)), tail.format()]
    else:
        lines = many(imported)
    return begin + "\n".join(lines) + "\n"


def seconds(program, folder):
    best = 1e9
    for _ in range(3):
        began = time.time()
        run = subprocess.run([program, "assess", "--no-cache", "--limit", "1", folder], capture_output=True, timeout=600)
        best = min(best, time.time() - began)
        if run.returncode not in (0, 3):
            raise SystemExit(f"{folder}: exit code {run.returncode}: {run.stderr.decode(errors='replace')[:300]}")
        if best > 20:
            break
    return best


def main():
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--elmcart", default="build/elmcart")
    parser.add_argument("--size", type=int, default=20000)
    parser.add_argument("--most", type=float, default=2.3)
    parser.add_argument("languages", nargs="*")
    args = parser.parse_args()
    over = 0
    with tempfile.TemporaryDirectory() as root:
        empty = os.path.join(root, "empty")
        os.mkdir(empty)
        floor = seconds(args.elmcart, empty)
        for language in args.languages or LANGUAGES:
            for shape in ("one-name", "base-chain", "users", "statements", "operands", "imports"):
                times = []
                for factor in (1, 2):
                    folder = os.path.join(root, f"{language}-{shape}-{factor}")
                    os.mkdir(folder)
                    with open(os.path.join(folder, "a." + LANGUAGES[language][0]), "w") as out:
                        out.write(text(language, shape, args.size * factor))
                    times.append(max(seconds(args.elmcart, folder) - floor, 0.0005))
                ratio = times[1] / times[0]
                # Below a tenth of a second the machine's noise is larger than what is measured.
                bad = ratio > args.most and times[1] > 0.1
                over += bad
                print(f"{language:11} {shape:11} {times[0]:7.3f} s {times[1]:7.3f} s  {ratio:5.2f}{'  OVER' if bad else ''}", flush=True)
    return 1 if over else 0


if __name__ == "__main__":
    sys.exit(main())
