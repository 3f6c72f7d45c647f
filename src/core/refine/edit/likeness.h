#pragma once

#include <set>

#include "core/drawing/drawing.h"

/// Choosing outlines by what they have in common with others.
namespace rim::refine {

enum class Likeness {
  Size,       ///< as wide and high as one of them, also turned by a quarter, within a twentieth
  Smaller,    ///< no wider and no higher than the largest of them
  Layer,      ///< on a layer of theirs
  Open,       ///< open ones, whatever is given
  Within,     ///< what lies inside one of them, at any depth
  WithHoles,  ///< they, and what lies directly inside
  Outermost,  ///< those of them that lie in no other of them
  Others,     ///< all but them
  Letter,     ///< they, what lies in and round them, and dots beside: all parts of a letter
};

/// The outlines of a drawing that are like some of them. n log n beside the nesting.
std::set<OutlineId> alike(const Drawing& drawing, const std::set<OutlineId>& to, Likeness how);

/// The outlines that lie wholly inside a closed path (by the even-odd rule), or of which only a part does with
/// `touched`.
std::set<OutlineId> encircled(const Drawing& drawing, const Path& by, bool touched);

}  // namespace rim::refine
