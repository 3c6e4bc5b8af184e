#pragma once

#include <cstdio>
#include <memory>
#include <mutex>
#include <string>

namespace office {

// The number of the next ticket, shared by all windows.
extern int nextTicket;
int takeTicket();

// Buoys are numbered from 100.
int nextBuoy();

// The tariff, as set by the council: static members only.
class Tariff {
 public:
  static void set(int centsATon) { centsATon_ = centsATon; }
  static int of(int tons) { return tons * centsATon_; }

 private:
  static int centsATon_;
};

// A launch of the office; it knows how many there are.
class Launch {
 public:
  Launch() { ++launched_; }
  static int launched() { return launched_; }

 private:
  static int launched_;
};

// The one scale on the quay, with its paper tape.
class CargoScale {
 public:
  static CargoScale& scale();

  CargoScale(const CargoScale&) = delete;
  CargoScale& operator=(const CargoScale&) = delete;

  int weigh(int kilos) const { return kilos - tare_; }

 private:
  CargoScale();

  std::FILE* tape_;
  const int tare_ = 20;
};

int weighAll(const int* kilos, int count);

// Which flag stands for which message: never changed.
struct SignalCode {
  char flag;
  const char* meaning;
};
inline constexpr SignalCode kSignalCodes[] = {{'H', "pilot on board"}, {'G', "wants a pilot"}, {'Q', "healthy ship"}};

// A fresh slip for each weighing, in spite of the factory's name.
class WeighSlip {
 public:
  static std::unique_ptr<WeighSlip> instance(int kilos) { return std::make_unique<WeighSlip>(kilos); }
  explicit WeighSlip(int kilos) : kilos_(kilos) {}
  int kilos() const { return kilos_; }

 private:
  int kilos_;
};

}  // namespace office
