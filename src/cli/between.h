#pragma once

#include <CLI/CLI.hpp>

namespace rim::cli {

/// Accepts a number from `low` to `high`; unlike the library's own check it refuses "nan".
CLI::Validator between(double low, double high);

}  // namespace rim::cli
