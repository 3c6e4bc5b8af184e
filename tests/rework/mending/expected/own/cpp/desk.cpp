#include "desk.h"

int strengthOf(const Lamp* lamp) { return lamp ? lamp->strength() : 0; }

Desk::Desk() : lamp_(std::make_unique<Lamp>(2)) {}

Desk::~Desk() {
  name_.clear();
}

void Desk::change(int strength) {
  if (strengthOf(lamp_.get()) == strength) return;
  lamp_ = nullptr;
  if (strength > 0) lamp_ = std::make_unique<Lamp>(strength + strengthOf(spare_.get()));
}

void Desk::keepLog(const std::string& name) { name_ = name; }

const std::string* Desk::log() const { return &name_; }
