// Harnesses in JavaScript and TypeScript: lines behind the module in question, so that they see what it does not export.
#include "languages/harness.h"

#include <filesystem>

#include "base/text.h"
#include "languages/javascript/javascript.h"

namespace elmcart {
namespace {

constexpr std::string_view kSupport = R"('use strict';
const fs = require('fs');
const { AsyncLocalStorage } = require('async_hooks');

const MOST = 1 << 14;
const begun = process.hrtime.bigint();
const events = [];
const own = new AsyncLocalStorage();
const numbers = new WeakMap();
let next = 0;
const gone = new Set();
const kept = [];

function note(kind, what) {
  if (events.length < MOST) events.push(`${kind} ${own.getStore() ?? 1000} ${process.hrtime.bigint() - begun} ${what ?? 0}`);
}

function identity(got) {
  if (got === null || (typeof got !== 'object' && typeof got !== 'function')) return 0;
  if (!numbers.has(got)) numbers.set(got, ++next);
  return numbers.get(got);
}

function write() {
  const path = process.env.ELMCART_PROBE_EVENTS;
  const text = events.map((event) => `${event}\n`).join('');
  if (path) fs.writeFileSync(path, text);
  else fs.writeSync(1, text);
}

globalThis.elmcartProbe = {
  gap(value) {
    // What other calls wrote in front of them does not count: the module itself may have made some while it was loaded.
    if (own.getStore() === undefined) return value;
    note('i');
    note('o', typeof value === 'number' ? value : 0);
    return value;
  },
  note,
  end(subscriber) {
    gone.add(subscriber);
    note('d');
  },
  heard(subscriber) {
    if (gone.has(subscriber)) note('h');
  },
  write() {
    write();
    process.exit(0);
  },
  async race(call) {
    const count = Number(process.env.ELMCART_PROBE_THREADS ?? 4);
    const run = async () => {
      note('c');
      try {
        const got = await call();
        kept.push(got);
        note('g', identity(got));
      } catch (failure) {
        note('x', String(failure).replace(/\n/g, ' '));
      }
    };
    await Promise.all(Array.from({ length: count }, (_, i) => own.run(i + 1, run)));
    write();
    process.exit(0);
  },
};
)";

constexpr std::string_view kWatch = R"('use strict';
const fs = require('fs');
const { performance } = require('perf_hooks');
const { isMainThread, threadId } = require('worker_threads');

const passed = new Map();
const made = [];
const numbers = new WeakMap();
let next = 0;
const now = () => Math.round((performance.timeOrigin + performance.now()) * 1e6);

globalThis.elmcartWatch = {
  at(site) {
    const counted = passed.get(site);
    if (counted === undefined) passed.set(site, [1, now(), now()]);
    else {
      counted[0] += 1;
      counted[2] = now();
    }
  },
  event(kind, what) {
    if (what && !numbers.has(what)) numbers.set(what, ++next);
    if (made.length < 1 << 14) made.push(`${kind} ${threadId + 1} ${now()} ${what ? numbers.get(what) : 0}`);
  },
};

process.on('exit', () => {
  const folder = process.env.ELMCART_PROBE_EVENTS;
  if (!folder) return;
  const lines = [...passed].map(([site, [count, first, last]]) => `s ${site} ${threadId + 1} ${count} ${first} ${last}`).concat(made);
  fs.writeFileSync(`${folder}/${process.pid}${isMainThread ? '' : `-${threadId}`}`, lines.map((line) => `${line}\n`).join(''));
});
)";

class ScriptHarness final : public HarnessWriter {
 public:
  using HarnessWriter::HarnessWriter;

  Result<Harness> write(const ProbePlan& plan) override {
    typed_ = plan.file.ends_with("ts") || plan.file.ends_with("tsx");
    Harness out;
    out.needs = "node";
    out.package = "nodejs";
    widen(plan, out.edits);
    for (Spot constructor : plan.made) atBegin(constructor, probeOf("note('m');"), out.edits, {"super("});
    for (const std::string& path : plan.declaring())
      if (path != plan.file) return Error{plan.file, "what the harness needs is declared in " + path + " and in " + plan.file + ": one module does not see both"};
    std::string missing, before, call = callText(plan, missing, before), body;
    if (plan.scenario == ProbeScenario::Ended) {
      if (!plan.ends.at.known()) return Error{plan.file, "nothing says when an object of " + plan.subscriber.ownerName + " ends"};
      std::string made = inBrackets(plan.subscriber, missing), ended = inBrackets(plan.ends, missing);
      atBegin(plan.heard.at, probeOf("heard(this);"), out.edits);
      body = before + "const elmcartSubscriber = new " + plain(plan.subscriber.ownerName) + made + ";\nelmcartSubscriber." + plan.ends.name + ended + ";\n" + probeOf("end(elmcartSubscriber);\n") + call + ";\n" + probeOf("write();\n");
    } else {
      body = before + probeOf("race(() => ") + call + ");\n";
    }
    out.missing = missing;
    out.files.push_back({plan.file, "\n" + body});
    out.files.push_back({"elmcart_probe.cjs", std::string(kSupport)});
    out.shown = plan.file;
    std::string module = plan.file;
    if (typed_) {
      // The project's own compiler, or the machine's; a file that imports nothing of Node's needs no types for it.
      std::string project = std::filesystem::exists(plan.root + "/tsconfig.json") ? "-p . --noEmit false --declaration false" : "--target es2020 --moduleResolution node --esModuleInterop --strict false \"" + plan.file + "\"";
      std::string compiler = std::filesystem::exists(plan.root + "/node_modules/.bin/tsc") ? "node_modules/.bin/tsc" : "tsc";
      out.needs = compiler;
      out.package = "typescript, by npm";
      size_t cut = plan.file.rfind('/'), dot = plan.file.rfind('.');
      std::string emitted = plan.file.substr(cut == std::string::npos ? 0 : cut + 1, dot - (cut == std::string::npos ? 0 : cut + 1)) + ".js";
      // What it says of types does not keep it from writing; without its file the run says so.
      out.build.push_back(compiler + " " + project + " --module commonjs --skipLibCheck --noEmitOnError false --outDir elmcart_probe_out || true");
      out.build.push_back("test -n \"$(find elmcart_probe_out -name '" + emitted + "')\"");
      module = "$(find elmcart_probe_out -name '" + emitted + "' | head -1)";
    }
    out.run = "node -r ./elmcart_probe.cjs \"" + module + "\"";
    return out;
  }

  Result<Harness> watch(const WatchPlan& plan) override {
    Harness out;
    auto probe = [](const LoweredFile& file, const std::string& what) { return (file.language == "typescript" ? "(globalThis as any).elmcartWatch." : "globalThis.elmcartWatch.") + what; };
    for (const WatchSite& site : plan.sites) around(site.at, "(" + probe(*site.at.file, "at(" + std::to_string(site.number) + "), "), ")", out.edits);
    for (Spot constructor : plan.made) atBegin(constructor, probe(*constructor.file, "event('m', this);"), out.edits, {"super("});
    for (Spot end : plan.ends) atBegin(end, probe(*end.file, "event('d', this);"), out.edits);
    out.files.push_back({"elmcart_probe_watch.cjs", std::string(kWatch)});
    const char* given = std::getenv("NODE_OPTIONS");
    out.environment.push_back("NODE_OPTIONS=--require \"" + plan.root + "/elmcart_probe_watch.cjs\"" + (given ? " " + std::string(given) : ""));
    return out;
  }

 protected:
  std::string gapCall() const override { return probeOf("gap("); }
  std::string madeUp(const ProbeParameter& parameter) const override {
    if (parameter.isArray) return "[]";
    if (parameter.type == "string") return "'elmcart'";
    if (parameter.type == "boolean") return "true";
    if (parameter.mayBeNull) return "undefined";
    return parameter.type.empty() || parameter.type == "number" || parameter.type == "any" || parameter.type == "unknown" ? "1" : "";
  }

  std::string nameOf(const ProbePlan&, const ProbeFunction& function) const override { return (function.owner.known() ? plain(function.ownerName) + "." : "") + function.name; }
  std::string slotName(const ProbePlan& plan) const override { return (plan.slotOwner.empty() ? "" : plain(plan.slotOwner) + ".") + plain(plan.slot); }
  std::string newObject(const ProbePlan&, const ProbeFunction& function) const override { return "new " + plain(function.ownerName) + "()"; }
  std::string keepObject(const ProbeFunction&, const std::string& object) const override { return "const " + std::string(kObject) + " = " + object + ";\n"; }

 private:
  std::string probeOf(const std::string& what) const { return (typed_ ? "(globalThis as any).elmcartProbe." : "globalThis.elmcartProbe.") + what; }
  bool typed_ = false;
};

}  // namespace

std::unique_ptr<HarnessWriter> scriptHarness(WriterFiles& files) { return std::make_unique<ScriptHarness>(files); }

}  // namespace elmcart
