#include "desk.h"

Desk::Desk(const std::string& port) : tides_(std::make_unique<TideFile>(port + ".txt")) {}
