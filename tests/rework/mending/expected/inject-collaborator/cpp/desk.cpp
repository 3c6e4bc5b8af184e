#include "desk.h"

#include <utility>

Desk::Desk(const std::string& port, std::unique_ptr<TideFile> tides) : tides_(tides ? std::move(tides) : std::make_unique<TideFile>(port + ".txt")) {}
