#pragma once

#include <functional>
#include <stop_token>

namespace rim {

/// Ways to follow and to stop long work. `progress`, when given, is called with 0..1, from the
/// thread that called the work.
struct WorkControl {
  std::stop_token stop;
  std::function<void(double)> progress;
};

}  // namespace rim
