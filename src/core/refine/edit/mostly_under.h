#pragma once

#include <optional>
#include <stop_token>

#include "core/drawing/drawing.h"

namespace rim::refine {

/// Where the closed outline stands that has most in common with a closed path: what both enclose is at least half of
/// what either does (the Jaccard index of the areas). Nothing: there is none, or the path is open. Throws Cancelled.
std::optional<std::size_t> mostlyUnder(const Drawing& drawing, const Path& path, const std::stop_token& stop = {});

}  // namespace rim::refine
