#pragma once

#include <stdexcept>
#include <string>

namespace rim {

/// Bad input, told to the user: what()'s text is one plain sentence that says what is wrong
/// and what to do. The file it is about is named by whoever opened it.
class InputError : public std::runtime_error {
 public:
  using std::runtime_error::runtime_error;
};

/// A file could not be written; the file that was there before is unharmed.
class WriteError : public std::runtime_error {
 public:
  using std::runtime_error::runtime_error;
};

/// Work was stopped on request, before it had a result.
class Cancelled : public std::exception {
 public:
  const char* what() const noexcept override { return "cancelled"; }
};

}  // namespace rim
