#include "desk.h"

int strengthOf(const Lamp* lamp) { return lamp ? lamp->strength() : 0; }

Desk::Desk() : lamp_(new Lamp(2)) {}

Desk::~Desk() {
  name_.clear();
  delete lamp_;
  delete spare_;
}

void Desk::change(int strength) {
  if (strengthOf(lamp_) == strength) return;
  delete lamp_;
  lamp_ = nullptr;
  if (strength > 0) lamp_ = new Lamp(strength + strengthOf(spare_));
}

void Desk::keepLog(const std::string& name) { name_ = name; }

const std::string* Desk::log() const { return &name_; }
