// Harnesses in PHP: no two threads share memory, so nothing is raced; watching and measuring go by a file that is read before all others.
#include "languages/harness.h"

#include <filesystem>

#include "base/text.h"
#include "languages/php/php.h"

namespace elmcart {
namespace {

constexpr std::string_view kWatch = R"(<?php
final class ElmcartWatch
{
    private static $passed = [];
    private static $made = [];

    public static function at($site)
    {
        $now = (int) (microtime(true) * 1e9);
        if (!isset(self::$passed[$site])) {
            self::$passed[$site] = [0, $now, $now];
        }
        self::$passed[$site][0]++;
        self::$passed[$site][2] = $now;
        return $site;
    }

    public static function pass($site, $value)
    {
        return $value;
    }

    public static function event($kind, $what)
    {
        if (count(self::$made) < 1 << 14) {
            self::$made[] = sprintf("%s 1 %d %d\n", $kind, (int) (microtime(true) * 1e9), spl_object_id($what));
        }
    }

    public static function write()
    {
        $folder = getenv('ELMCART_PROBE_EVENTS');
        if (!$folder || (!self::$passed && !self::$made)) {
            return;
        }
        $lines = implode('', self::$made);
        foreach (self::$passed as $site => $counted) {
            $lines .= sprintf("s %d 1 %d %d %d\n", $site, $counted[0], $counted[1], $counted[2]);
        }
        file_put_contents($folder . '/' . getmypid(), $lines);
    }
}

register_shutdown_function(['ElmcartWatch', 'write']);
)";

constexpr std::string_view kCost = R"(<?php
final class ElmcartDesk
{
    public static $desk;

    public static function desk()
    {
        if (self::$desk === null) {
            self::$desk = new ElmcartDesk();
        }
        return self::$desk;
    }
}

final class ElmcartClerk
{
    private $desk;

    public function __construct(ElmcartDesk $desk)
    {
        $this->desk = $desk;
    }

    public function desk()
    {
        return $this->desk;
    }
}

function elmcart_measure($out, $form, callable $loop, $rounds)
{
    $count = 1000;
    while (true) {
        $begun = hrtime(true);
        $loop($count);
        if (hrtime(true) - $begun > 5000000) {
            break;
        }
        $count *= 2;
    }
    for ($round = 0; $round < $rounds; $round++) {
        $begun = hrtime(true);
        $loop($count);
        fwrite($out, sprintf("t 1 %.4f %s\n", (hrtime(true) - $begun) / $count, $form));
    }
}

function elmcart_cost(callable $own, callable $loop)
{
    $rounds = (int) (getenv('ELMCART_PROBE_ROUNDS') ?: 11);
    $path = getenv('ELMCART_PROBE_EVENTS');
    $out = fopen($path ?: 'php://stdout', 'w');
    $begun = hrtime(true);
    $own();
    fwrite($out, sprintf("f 1 %d as it is\n", hrtime(true) - $begun));
    elmcart_measure($out, 'as it is', $loop, $rounds);
    elmcart_measure($out, 'lazy static', function ($count) {
        for ($i = 0; $i < $count; $i++) {
            ElmcartDesk::desk();
        }
    }, $rounds);
    $clerk = new ElmcartClerk(ElmcartDesk::desk());
    elmcart_measure($out, 'injected field', function ($count) use ($clerk) {
        for ($i = 0; $i < $count; $i++) {
            $clerk->desk();
        }
    }, $rounds);
    exit(0);
}
)";

class PhpHarness final : public HarnessWriter {
 public:
  using HarnessWriter::HarnessWriter;

  Result<Harness> write(const ProbePlan& plan) override { return Error{plan.file, "no two threads share memory in PHP: nothing comes between"}; }

  Result<Harness> watch(const WatchPlan& plan) override {
    Harness out;
    for (const WatchSite& site : plan.sites) around(site.at, "\\ElmcartWatch::pass(\\ElmcartWatch::at(" + std::to_string(site.number) + "), ", ")", out.edits);
    for (Spot constructor : plan.made) atBegin(constructor, "\\ElmcartWatch::event('m', $this);", out.edits);
    for (Spot end : plan.ends) atBegin(end, "\\ElmcartWatch::event('d', $this);", out.edits);
    out.files.push_back({"elmcart_probe_watch.php", std::string(kWatch)});
    // A folder of settings beside those that are there (PHP manual, "The configuration file": PHP_INI_SCAN_DIR).
    out.files.push_back({"elmcart_probe_settings/elmcart.ini", "auto_prepend_file=\"" + plan.root + "/elmcart_probe_watch.php\"\n"});
    out.environment.push_back("PHP_INI_SCAN_DIR=:" + plan.root + "/elmcart_probe_settings");
    return out;
  }

  Result<Harness> cost(const ProbePlan& plan) override {
    Harness out;
    out.needs = "php";
    out.package = "php-cli";
    out.shown = "elmcart_probe_run.php";
    std::string missing, before, call = callText(plan, missing, before);
    out.missing = missing;
    // The project's own way to load classes, where it has one.
    std::string loaded;
    if (std::filesystem::exists(plan.root + "/vendor/autoload.php")) loaded = "require_once __DIR__ . '/vendor/autoload.php';\n";
    for (const std::string& path : plan.declaring()) loaded += "require_once __DIR__ . '/" + path + "';\n";
    out.files.push_back({out.shown, std::string(kCost) + loaded + before + "elmcart_cost(function () {\n    " + call + ";\n}, function ($count) {\n    for ($i = 0; $i < $count; $i++) {\n        " + call + ";\n    }\n});\n"});
    out.run = "php elmcart_probe_run.php";
    return out;
  }

 protected:
  std::string gapCall() const override { return "("; }
  std::string madeUp(const ProbeParameter& parameter) const override {
    if (parameter.type == "string") return "'elmcart'";
    if (parameter.type == "bool") return "true";
    if (parameter.type == "array") return "[]";
    if (parameter.mayBeNull) return "null";
    return parameter.type.empty() || parameter.type == "int" || parameter.type == "float" || parameter.type == "mixed" ? "1" : "";
  }
  std::string nameOf(const ProbePlan&, const ProbeFunction& function) const override { return "\\" + joined(function.owner.known() ? function.ownerName : function.qualified, "\\") + (function.owner.known() ? "::" + function.name : ""); }
  std::string slotName(const ProbePlan& plan) const override { return plan.slotOwner.empty() ? "$GLOBALS['" + plain(plan.slot) + "']" : "\\" + joined(plan.slotOwner, "\\") + "::$" + plain(plan.slot); }
  std::string newObject(const ProbePlan&, const ProbeFunction& function) const override { return "(new \\" + joined(function.ownerName, "\\") + "())"; }
  std::string_view memberMark() const override { return "->"; }
  std::string keepObject(const ProbeFunction&, const std::string&) const override { return ""; }
};

}  // namespace

std::unique_ptr<HarnessWriter> phpHarness(WriterFiles& files) { return std::make_unique<PhpHarness>(files); }

}  // namespace elmcart
