#pragma once

#include <set>

#include "core/drawing/drawing.h"

/// Outlines that are taken hold of as one thing.
namespace rim::refine {

/// The drawing with these outlines as one group of its own, whatever groups they belonged to; with fewer than two it
/// stays as it is.
Drawing grouped(const Drawing& drawing, const std::set<OutlineId>& outlines);

/// The drawing in which these outlines belong to no group.
Drawing ungrouped(const Drawing& drawing, const std::set<OutlineId>& outlines);

/// The outlines and all that belong to a group with one of them.
std::set<OutlineId> wholeGroups(const Drawing& drawing, const std::set<OutlineId>& outlines);

}  // namespace rim::refine
