#pragma once

#include <optional>
#include <stop_token>

#include "core/drawing/drawing.h"
#include "core/drawing/mark.h"

namespace rim::refine {

/// Where the closed outline stands that has most in common with a closed path: what both enclose is at least half of
/// what either does (the Jaccard index of the areas). Nothing: there is none, or the path is open. Throws Cancelled.
std::optional<std::size_t> mostlyUnder(const Drawing& drawing, const Path& path, const std::stop_token& stop = {});

/// The same for an outline of which only the mark is left: by its box and by how much it enclosed, each at least half
/// in common.
std::optional<std::size_t> mostlyUnder(const Drawing& drawing, const OutlineMark& mark);

/// Whether any outline lies where the marked one did, in pieces or otherwise: in its box, or in common with much of it.
bool isAnythingAt(const Drawing& drawing, const OutlineMark& mark);

}  // namespace rim::refine
