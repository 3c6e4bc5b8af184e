// The result of something that can fail for a reason outside the program:
// either a value or one error that is fit to be shown on one line.
#pragma once

#include <string>
#include <utility>
#include <variant>

namespace elmcart {

// Why something failed. `subject` is the file, key or name that it is about
// (may be empty), `reason` a short clause without a final full stop.
struct Error {
  std::string subject;
  std::string reason;

  std::string line() const { return subject.empty() ? reason : subject + ": " + reason; }
};

template <typename T>
class [[nodiscard]] Result {
 public:
  Result(T value) : held_(std::move(value)) {}          // NOLINT: implicit on purpose
  Result(Error error) : held_(std::move(error)) {}      // NOLINT: implicit on purpose

  bool ok() const { return std::holds_alternative<T>(held_); }
  explicit operator bool() const { return ok(); }
  T& value() { return std::get<T>(held_); }
  const T& value() const { return std::get<T>(held_); }
  T& operator*() { return value(); }
  const T& operator*() const { return value(); }
  T* operator->() { return &value(); }
  const T* operator->() const { return &value(); }
  const Error& error() const { return std::get<Error>(held_); }

 private:
  std::variant<T, Error> held_;
};

struct Done {};  // the value of a Result that has nothing to tell but success

}  // namespace elmcart
