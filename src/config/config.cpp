#include "config/config.h"

#define TOML_EXCEPTIONS 0
#include <toml++/toml.h>

#include <filesystem>
#include <optional>

#include "base/text.h"

namespace elmcart {
namespace fs = std::filesystem;
namespace {

// Reads one table: every key must be claimed, or it is refused by name.
class TableReader {
 public:
  TableReader(const toml::table& table, std::string path, std::string where, std::optional<Error>& error)
      : table_(table), path_(std::move(path)), where_(std::move(where)), error_(error) {}

  void text(std::string_view key, std::string& out) {
    if (const toml::node* node = take(key)) {
      if (auto value = node->value_exact<std::string>()) out = *value;
      else wrong(key, "a text");
    }
  }
  void flag(std::string_view key, bool& out) {
    if (const toml::node* node = take(key)) {
      if (auto value = node->value_exact<bool>()) out = *value;
      else wrong(key, "true or false");
    }
  }
  void number(std::string_view key, int& out, int least, int most) {
    if (const toml::node* node = take(key)) {
      auto value = node->value_exact<int64_t>();
      if (value && *value >= least && *value <= most) out = static_cast<int>(*value);
      else wrong(key, "a whole number from " + std::to_string(least) + " to " + std::to_string(most));
    }
  }
  void texts(std::string_view key, std::vector<std::string>& out) {
    const toml::node* node = take(key);
    if (!node) return;
    const toml::array* array = node->as_array();
    std::vector<std::string> values;
    bool fine = array != nullptr;
    if (array) {
      for (const toml::node& item : *array) {
        auto value = item.value_exact<std::string>();
        if (value) values.push_back(*value);
        else fine = false;
      }
    }
    if (fine) out = std::move(values);
    else wrong(key, "a list of texts");
  }
  void globs(std::string_view key, Globs& out) {
    std::vector<std::string> patterns = out.patterns();
    texts(key, patterns);
    out = Globs(std::move(patterns));
  }
  template <typename Read>
  void table(std::string_view key, Read read) {
    if (const toml::node* node = take(key)) {
      if (const toml::table* inner = node->as_table()) {
        TableReader reader(*inner, path_, inside(key), error_);
        read(reader);
        reader.finish();
      } else {
        wrong(key, "a table");
      }
    }
  }
  template <typename Read>
  void tables(std::string_view key, Read read) {
    const toml::node* node = take(key);
    if (!node) return;
    const toml::array* array = node->as_array();
    if (!array) return wrong(key, "a list of tables");
    for (const toml::node& item : *array) {
      const toml::table* inner = item.as_table();
      if (!inner) return wrong(key, "a list of tables");
      TableReader reader(*inner, path_, inside(key), error_);
      read(reader);
      reader.finish();
    }
  }
  // Refuses keys that nobody asked for.
  void finish() {
    for (auto&& [key, value] : table_) {
      std::string name(key.str());
      if (std::find(known_.begin(), known_.end(), name) != known_.end()) continue;
      std::string nearest;
      size_t best = 4;
      for (const std::string& candidate : known_)
        if (size_t distance = editDistance(name, candidate); distance < best) best = distance, nearest = candidate;
      std::string reason = "line " + std::to_string(value.source().begin.line) + ": unknown key '" + inside(name) + "'";
      if (!nearest.empty()) reason += "; did you mean '" + nearest + "'?";
      if (!error_) error_ = Error{path_, reason};
    }
  }
  void require(std::string_view key, const std::string& value) {
    if (value.empty() && !error_) error_ = Error{path_, "'" + where_ + "' needs the key '" + std::string(key) + "'"};
  }

 private:
  const toml::node* take(std::string_view key) {
    known_.emplace_back(key);
    return table_.get(key);
  }
  std::string inside(std::string_view key) const { return where_.empty() ? std::string(key) : where_ + "." + std::string(key); }
  void wrong(std::string_view key, const std::string& wanted) {
    if (!error_) error_ = Error{path_, "'" + inside(key) + "' must be " + wanted};
  }

  const toml::table& table_;
  std::string path_;
  std::string where_;
  std::optional<Error>& error_;
  std::vector<std::string> known_;
};

Result<toml::table> parse(const std::string& path) {
  toml::parse_result parsed = toml::parse_file(path);
  if (!parsed) {
    const toml::parse_error& error = parsed.error();
    return Error{path, "line " + std::to_string(error.source().begin.line) + ": " + std::string(error.description())};
  }
  return std::move(parsed).table();
}

}  // namespace

Result<Config> readConfig(const std::string& path) {
  auto parsed = parse(path);
  if (!parsed) return parsed.error();
  Config config;
  config.path = path;
  std::optional<Error> error;
  TableReader top(*parsed, path, "", error);
  top.table("read", [&](TableReader& t) {
    t.globs("leave-out", config.leaveOut);
    t.flag("gitignore", config.gitignore);
    t.globs("tests", config.tests);
  });
  top.table("thresholds", [&](TableReader& t) {
    t.number("wide-reach", config.wideReach, 2, 1000);
    t.number("locked-sites", config.lockedSites, 1, 1000);
    t.number("crowded-startup", config.crowdedStartup, 2, 1000);
    t.number("long-handoff", config.longHandoff, 2, 100);
  });
  top.tables("layer", [&](TableReader& t) {
    Config::Layer layer;
    t.text("name", layer.name);
    t.globs("files", layer.files);
    t.texts("may-reach", layer.mayReach);
    t.require("name", layer.name);
    config.layers.push_back(layer);
  });
  top.texts("single", config.single);
  top.text("ledger", config.ledger);
  top.table("build", [&](TableReader& t) {
    t.texts("commands", config.build);
    t.number("seconds", config.buildSeconds, 1, 86400);
  });
  top.table("test", [&](TableReader& t) {
    t.texts("commands", config.test);
    t.texts("results", config.results);
    t.texts("coverage", config.coverage);
    t.text("alone", config.testAlone);
    t.number("seconds", config.testSeconds, 1, 86400);
    t.number("baseline-runs", config.baselineRuns, 1, 20);
  });
  top.tables("witness", [&](TableReader& t) {
    Witness witness;
    t.text("name", witness.name);
    t.text("command", witness.command);
    t.texts("files", witness.files);
    t.texts("masks", witness.masks);
    t.require("command", witness.command);
    if (witness.name.empty()) witness.name = witness.command;
    config.witnesses.push_back(witness);
  });
  top.table("probe", [&](TableReader& t) { t.text("class-path", config.classPath); });
  top.finish();
  for (const Config::Layer& layer : config.layers)
    for (const std::string& other : layer.mayReach)
      if (!error && std::none_of(config.layers.begin(), config.layers.end(), [&](const Config::Layer& l) { return l.name == other; })) error = Error{path, "the layer '" + layer.name + "' may reach '" + other + "', and no layer is called that"};
  if (error) return *error;
  if (!config.ledger.empty()) {
    std::string ledgerPath = (fs::path(path).parent_path() / config.ledger).string();
    auto ledger = parse(ledgerPath);
    if (!ledger) return ledger.error();
    TableReader rows(*ledger, ledgerPath, "", error);
    rows.tables("accept", [&](TableReader& t) {
      LedgerRow row;
      t.text("check", row.check);
      t.text("entity", row.entity);
      t.text("file", row.file);
      t.text("fingerprint", row.fingerprint);
      t.text("because", row.because);
      t.require("check", row.check);
      t.require("because", row.because);
      config.accepted.push_back(row);
    });
    rows.finish();
    if (error) return *error;
  }
  return config;
}

Result<Config> findConfig(const std::string& folder) {
  std::error_code error;
  for (fs::path at = fs::absolute(folder, error); !error && !at.empty(); at = at.parent_path()) {
    fs::path candidate = at / "elmcart.toml";
    std::error_code absent;  // that there is none here says nothing of the folders above
    if (fs::is_regular_file(candidate, absent)) return readConfig(candidate.string());
    if (at == at.root_path()) break;
  }
  return Config{};
}

}  // namespace elmcart
