#pragma once

#include <functional>

#include "core/work_control.h"

namespace rim {

/// Runs work(i) for all i below count on all processors; progress comes from this thread. What the first failing
/// work throws is thrown here. Throws Cancelled when a stop is requested.
void forAll(std::size_t count, const WorkControl& control, const std::function<void(std::size_t)>& work);

}  // namespace rim
