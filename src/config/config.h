// elmcart.toml: what to read, how to judge, how to build and test.
// Every key is documented in docs/configuration.md; unknown keys are refused
// by name.
#pragma once

#include <atomic>
#include <memory>
#include <string>
#include <vector>

#include "base/result.h"
#include "source/ignore.h"

namespace elmcart {

struct Witness {
  std::string name;
  std::string command;               // run in the root of the tree
  std::vector<std::string> files;    // written files that are compared too
  std::vector<std::string> masks;    // regular expressions; what they match is not compared
};

struct LedgerRow {
  std::string check;
  std::string entity;   // id or name; empty: any
  std::string file;     // empty: any
  std::string fingerprint;  // of one finding; empty: any
  std::string because;
};

struct Config {
  std::string path;                  // of the file it was read from; empty when none
  Globs leaveOut;
  bool gitignore = true;
  std::vector<std::string> only;     // what the command line named, when it named several; no key of the file
  Globs tests = {"test/**", "tests/**", "**/test/**", "**/tests/**", "**/testsuite/**", "**/testing/**", "Tests/**", "**/Tests/**", "**/*_test.*", "**/*_test?.*", "**/*_test_util*.*", "**/test_*.*", "**/test-*.*", "**/?*Test.*", "**/?*Tests.*", "**/*-test.*", "**/*-tests.*", "**/*.test.*", "**/*.bench.*", "e2e/**", "**/e2e/**", "**/test-e2e/**", "**/*.spec.*", "**/*Spec.js", "**/*Spec.ts", "**/*Spec.kt", "**/*Spec.swift", "**/*Spec.groovy", "**/__tests__/**", "**/testdata/**", "**/_fixtures/**", "**/unittest*/**", "Test/**", "**/Test/**", "bugtests/**", "**/bugtests/**", "benchmark/**", "benchmarks/**", "**/benchmark/**", "**/benchmarks/**", "**/jmh/**", "**/?*Benchmark.*", "**/?*Benchmarks.*"};

  int wideReach = 5;                 // classes that reach one entity before it is called wide
  struct Layer {
    std::string name;
    Globs files;                        // a file is of the first layer that names it
    std::vector<std::string> mayReach;  // names of layers, beside itself
  };
  std::vector<Layer> layers;
  std::vector<std::string> single;   // classes that are meant to have one instance: plain or qualified names
  int crowdedStartup = 6;            // shared objects that one function starts before it is worth a word
  int longHandoff = 3;               // functions that a parameter passes through unused
  int lockedSites = 5;               // sites that pay a lock before it is worth a word

  std::vector<LedgerRow> accepted;   // from the ledger file
  std::string ledger;                // its path, relative to the configuration

  std::vector<std::string> build;
  std::vector<std::string> test;
  std::vector<std::string> results;  // globs of result files
  std::vector<std::string> coverage; // globs of files in which the test command tells what lines it executed
  std::string testAlone;             // runs the one test that ELMCART_TEST names
  std::vector<Witness> witnesses;
  std::string classPath;             // of the JVM, for harnesses of probe: as javac's -cp takes it
  // Set from outside when the run is to end; no key of the file. Null: never.
  std::shared_ptr<const std::atomic<int>> stop;
  bool stopAsked() const { return stop && stop->load() != 0; }
  int buildSeconds = 1800;
  int testSeconds = 600;
  int baselineRuns = 3;
};

// Reads the configuration at `path`, and its ledger.
Result<Config> readConfig(const std::string& path);
// Looks for elmcart.toml in `folder` and its parents; the defaults when there is none.
Result<Config> findConfig(const std::string& folder);

}  // namespace elmcart
